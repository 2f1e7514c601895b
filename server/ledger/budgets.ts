import { and, eq, gte, inArray, isNotNull, notInArray, sql } from 'drizzle-orm'
import type { Reader } from '#server/kit'
import { charges, orders, orderShares, payers, postings } from '../tables'

/**
 * What the budgets of these payers say: charged is net of reversals, committed is the estimated
 * share of approved orders that have not been charged yet. A grant counts over its whole life, the
 * others from the first of January.
 */
export async function budgetsOf(db: Reader, payerIds: number[], now: Date) {
  if (!payerIds.length) return []
  const rows = await db
    .select({ id: payers.id, kind: payers.kind, budgetMinor: payers.budgetMinor })
    .from(payers)
    .where(and(inArray(payers.id, payerIds), isNotNull(payers.budgetMinor)))
  if (!rows.length) return []
  const ids = rows.map((row) => row.id)
  const january = `${now.getUTCFullYear()}-01`
  const charged = await db
    .select({
      payerId: charges.payerId,
      kind: payers.kind,
      net: sql<string>`coalesce(sum(case when ${postings.kind} = 'reversal' then -abs(${charges.netMinor}) else ${charges.netMinor} end), 0)`,
    })
    .from(charges)
    .innerJoin(postings, eq(postings.id, charges.postingId))
    .innerJoin(payers, eq(payers.id, charges.payerId))
    .where(and(inArray(charges.payerId, ids), sql`(${payers.kind} = 'grant' or ${gte(charges.month, january)})`))
    .groupBy(charges.payerId, payers.kind)
  const committed = await db
    .select({ payerId: orderShares.payerId, net: sql<string>`coalesce(sum(round(${orders.estimateMinor} * ${orderShares.shareBp} / 10000)), 0)` })
    .from(orderShares)
    .innerJoin(orders, eq(orders.id, orderShares.orderId))
    .where(and(inArray(orderShares.payerId, ids), notInArray(orders.state, ['draft', 'to_approve', 'closed', 'cancelled'])))
    .groupBy(orderShares.payerId)
  const of = (list: { payerId: number; net: string }[], id: number) => Number(list.find((one) => one.payerId === id)?.net ?? 0)
  return rows.map((row) => ({ payerId: row.id, budgetMinor: row.budgetMinor!, chargedMinor: of(charged, row.id), committedMinor: of(committed, row.id) }))
}
