import { and, asc, eq, inArray, isNotNull, isNull } from 'drizzle-orm'
import type { Unable, UnableSheet } from '#contract/approvals'
import { openHolders, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { idsIn, rulesOf } from '#server/orders'
import { accounts, approvals, orders, payers, people, sites } from '../tables'

/**
 * Whom rules, consents and open questions of these sites wait for in vain: their account is closed, or they
 * approve nothing there any more.
 */
export async function unableAt(db: Reader, who: Pick<Asker, 'siteIds'>): Promise<Omit<Unable, 'able'>[]> {
  const siteRows = await db.select({ id: sites.id, code: sites.code }).from(sites).where(withinSites(who, sites.id)).orderBy(asc(sites.id))
  const consents = await db.select({ accountId: payers.consentAccountId }).from(payers).where(isNotNull(payers.consentAccountId))
  const open = await db
    .select({ accountId: approvals.accountId, siteId: orders.siteId, id: orders.id, number: orders.number })
    .from(approvals)
    .innerJoin(orders, eq(orders.id, approvals.orderId))
    .where(and(isNull(approvals.decidedAt), isNotNull(approvals.accountId), eq(orders.state, 'to_approve'), withinSites(who, orders.siteId)))
    .orderBy(asc(orders.id))
  const found: Omit<Unable, 'name' | 'able'>[] = []
  for (const site of siteRows) {
    const able = new Set((await openHolders(db, 'orders.approve', site.id)).map((row) => row.id))
    const { approvals: rules } = await rulesOf(db, site.id)
    const asked = idsIn({ approvals: rules, reasons: [], escalations: [] }).accounts
    const waiting = open.filter((row) => row.siteId === site.id)
    const all = new Set([...asked, ...consents.map((row) => row.accountId!), ...waiting.map((row) => row.accountId!)])
    for (const accountId of all)
      if (!able.has(accountId))
        found.push({
          siteId: site.id,
          siteCode: site.code,
          accountId,
          rules: rules.filter((rule) => rule.asks.some((one) => one !== 'supervisor' && one.accountId === accountId)).length,
          consents: consents.filter((row) => row.accountId === accountId).length,
          orders: waiting.filter((row) => row.accountId === accountId).map(({ id, number }) => ({ id, number })),
        })
  }
  const ids = [...new Set(found.map((one) => one.accountId))]
  const names = await namesOf(db, ids)
  return found.map((one) => ({ ...one, name: names.find((row) => row.id === one.accountId)?.name ?? 'Somebody' }))
}

/** Whom it all waits for in vain, each with those who could decide instead. */
export async function readUnableSheet(db: Reader, who: Asker): Promise<UnableSheet> {
  const unable = await unableAt(db, who)
  const ableAt = new Map<number, Unable['able']>()
  for (const siteId of new Set(unable.map((one) => one.siteId))) {
    const ids = (await openHolders(db, 'orders.approve', siteId)).map((row) => row.id)
    ableAt.set(siteId, await namesOf(db, ids))
  }
  return { unable: unable.map((one) => ({ ...one, able: ableAt.get(one.siteId)! })) }
}

async function namesOf(db: Reader, accountIds: number[]): Promise<{ id: number; name: string }[]> {
  if (!accountIds.length) return []
  return db
    .select({ id: accounts.id, name: people.name })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(inArray(accounts.id, accountIds))
    .orderBy(asc(people.name))
}
