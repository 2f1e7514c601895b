import { eq, inArray } from 'drizzle-orm'
import { DEFAULT_RULES } from '#core/orders'
import type { RuleBook, RuleNames } from '#core/orders'
import type { Reader } from '#server/kit'
import { accounts, payers, people, places, ruleBooks } from '../tables'

/** The rules in force at a site: its own sections, and the usual ones where it has none. */
export async function rulesOf(db: Reader, siteId: number): Promise<RuleBook> {
  const [row] = await db.select({ content: ruleBooks.content }).from(ruleBooks).where(eq(ruleBooks.siteId, siteId))
  return { ...DEFAULT_RULES, ...row?.content }
}

/** What the ids in rules are called, so that a rule reads as a sentence. */
export async function namesFor(db: Reader, ids: { places: number[]; payers: number[]; accounts: number[] }): Promise<RuleNames> {
  const placeRows = ids.places.length
    ? await db.select({ id: places.id, code: places.code, name: places.name }).from(places).where(inArray(places.id, ids.places))
    : []
  const payerRows = ids.payers.length
    ? await db.select({ id: payers.id, code: payers.code, name: payers.name }).from(payers).where(inArray(payers.id, ids.payers))
    : []
  const accountRows = ids.accounts.length
    ? await db
        .select({ id: accounts.id, name: people.name })
        .from(accounts)
        .innerJoin(people, eq(people.id, accounts.personId))
        .where(inArray(accounts.id, ids.accounts))
    : []
  const coded = (rows: { id: number; code: string; name: string }[], missing: string) => (id: number) => {
    const row = rows.find((one) => one.id === id)
    return row ? `${row.code} ${row.name}` : missing
  }
  return {
    place: coded(placeRows, 'a place that is gone'),
    payer: coded(payerRows, 'a payer that is gone'),
    account: (id) => accountRows.find((one) => one.id === id)?.name ?? 'somebody who is gone',
  }
}

/** Every id the rules of a book name. */
export function idsIn(book: Pick<RuleBook, 'reasons' | 'approvals' | 'escalations'>): { places: number[]; payers: number[]; accounts: number[] } {
  const conditions = [...book.reasons, ...book.approvals, ...book.escalations].map((rule) => rule.when)
  const asked = [...book.approvals.flatMap((rule) => rule.asks), ...book.escalations.flatMap((rule) => rule.tell)]
  return {
    places: conditions.flatMap((when) => when.placeId ?? []),
    payers: conditions.flatMap((when) => when.payerIds ?? []),
    accounts: asked.flatMap((one) => (typeof one === 'string' ? [] : one.accountId)),
  }
}
