import { asc, eq, isNotNull, or } from 'drizzle-orm'
import type { RuleBookSheet } from '#contract/setup'
import { notFound } from '#server/kit'
import type { Reader } from '#server/kit'
import { idsIn, namesFor, readRuleBook } from '#server/orders'
import { ownFieldsOf } from '#server/own'
import { categories, payers, sites, targetExceptions } from '../tables'

/** The rules of a site as Setup shows them. */
export async function readRuleBookSheet(db: Reader, siteId: number): Promise<RuleBookSheet> {
  const [site] = await db.select().from(sites).where(eq(sites.id, siteId))
  if (!site) throw notFound('site')
  const { book, versions, unreadable } = await readRuleBook(db, siteId)
  const exceptions = await db
    .select({ exception: targetExceptions, categoryName: categories.name })
    .from(targetExceptions)
    .innerJoin(categories, eq(categories.id, targetExceptions.categoryId))
    .where(eq(targetExceptions.siteId, siteId))
    .orderBy(asc(categories.name), asc(targetExceptions.id))
  const consents = await db
    .select({ payerId: payers.id, payerName: payers.name, accountId: payers.consentAccountId, aboveMinor: payers.consentAboveMinor })
    .from(payers)
    .where(or(isNotNull(payers.consentAccountId), isNotNull(payers.consentAboveMinor)))
    .orderBy(asc(payers.code))
  const ids = idsIn(book)
  const accountIds = [...ids.accounts, ...consents.flatMap((one) => one.accountId ?? [])]
  const names = await namesFor(db, { ...ids, accounts: accountIds })
  const named = (list: number[], name: (id: number) => string) => [...new Set(list)].map((id) => ({ id, name: name(id) }))
  return {
    siteId,
    versions,
    unreadable,
    currency: site.currency,
    book,
    calendar: site.calendar,
    calendarVersion: site.calendarVersion,
    exceptions: exceptions.map(({ exception: { siteId: _site, ...rest }, categoryName }) => ({ ...rest, categoryName })),
    consents,
    names: { places: named(ids.places, names.place), payers: named(ids.payers, names.payer), accounts: named(accountIds, names.account) },
    own: await ownFieldsOf(db, 'orders'),
  }
}
