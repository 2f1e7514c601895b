import { eq, inArray } from 'drizzle-orm'
import { chargesOf } from '#core/ledger'
import type { CostLine } from '#core/ledger'
import type { Reader } from '#server/kit'
import { markups, orderShares, payers, vendors } from '../tables'
import { costLinesOf } from './costs'

/** What posting an order would charge, to whom, as it stands: the same sums that the posting keeps. */
export async function chargesFor(db: Reader, orderId: number) {
  const lines = await costLinesOf(db, orderId)
  const terms = await db
    .select({ payer: payers, shareBp: orderShares.shareBp })
    .from(orderShares)
    .innerJoin(payers, eq(payers.id, orderShares.payerId))
    .where(eq(orderShares.orderId, orderId))
    .orderBy(orderShares.position)
  const charges = chargesOf(
    lines,
    terms.map(({ payer, shareBp }) => ({ payerId: payer.id, shareBp, taxBp: payer.taxBp, ownCost: payer.kind === 'own' })),
    await markupRule(db, lines),
  )
  return { charges, terms }
}

/** The vendor's own terms where there are any, otherwise those of the cost kind. */
async function markupRule(db: Reader, lines: CostLine[]): Promise<(line: CostLine) => number> {
  const byKind = new Map((await db.select().from(markups)).map((row) => [row.kind, row.markupBp]))
  const ids = [...new Set(lines.flatMap((line) => (line.vendorId ? [line.vendorId] : [])))]
  const byVendor = new Map(
    ids.length ? (await db.select({ id: vendors.id, bp: vendors.markupBp }).from(vendors).where(inArray(vendors.id, ids))).map((row) => [row.id, row.bp]) : [],
  )
  return (line) => (line.vendorId ? byVendor.get(line.vendorId) : undefined) ?? byKind.get(line.kind) ?? 0
}
