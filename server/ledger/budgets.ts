import { and, eq, gte, inArray, isNotNull, notInArray, sql } from 'drizzle-orm'
import type { Placeholder } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { Reader } from '#server/kit'
import { charges, orders, orderShares, payers } from '../tables'

/**
 * What the budget of a payer says, as columns beside `payers`: charged is net of reversals, committed is the
 * estimated share of approved orders that have not been charged yet. A grant counts over its whole life, the
 * others from the month given, the first of the year. Empty where a payer has no budget.
 */
export function budgetColumns(db: Reader, january: string | Placeholder) {
  const [share, order] = [alias(orderShares, 'committed_share'), alias(orders, 'committed_order')]
  const charged = db
    // What a reversal takes back stands there as a negative amount.
    .select({ net: sql`sum(${charges.netMinor})` })
    .from(charges)
    .where(and(eq(charges.payerId, payers.id), gte(charges.month, sql`if(${payers.kind} = 'grant', '', ${january})`)))
  const committed = db
    .select({ net: sql`sum(round(${order.estimateMinor} * ${share.shareBp} / 10000))` })
    .from(share)
    .innerJoin(order, eq(order.id, share.orderId))
    .where(and(eq(share.payerId, payers.id), notInArray(order.state, ['draft', 'to_approve', 'closed', 'cancelled'])))
  const whereBudgeted = (sum: object) => sql<string | null>`if(${payers.budgetMinor} is null, null, coalesce((${sum}), 0))`
  return { payerId: payers.id, budgetMinor: payers.budgetMinor, charged: whereBudgeted(charged), committed: whereBudgeted(committed) }
}

/** The first month of the year: "2026-01". */
export const januaryOf = (now: Date): string => `${now.getUTCFullYear()}-01`

interface BudgetRow {
  payerId: number
  budgetMinor: number | null
  charged: string | null
  committed: string | null
}

/** The budgets there are among rows of those columns. Amounts in minor units. */
export function budgetsIn(rows: BudgetRow[]) {
  return rows.flatMap(({ payerId, budgetMinor, charged, committed }) =>
    budgetMinor === null ? [] : [{ payerId, budgetMinor, chargedMinor: Number(charged), committedMinor: Number(committed) }],
  )
}

/** What the budgets of these payers say. One statement. */
export async function budgetsOf(db: Reader, payerIds: number[], now: Date) {
  if (!payerIds.length) return []
  const rows = await db
    .select(budgetColumns(db, januaryOf(now)))
    .from(payers)
    .where(and(inArray(payers.id, payerIds), isNotNull(payers.budgetMinor)))
  return budgetsIn(rows)
}
