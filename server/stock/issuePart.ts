import Big from 'big.js'
import { and, eq, isNull } from 'drizzle-orm'
import { refuse } from '#core/kit'
import { freeOf } from '#core/stock'
import type { Tx } from '#server/kit'
import { sectionOf } from '#server/orders'
import { parts, reservations, stockLevels, stores } from '../tables'
import { keptForOthers, levelsWhere, plain } from './levels'
import { goOut } from './moveStock'
import { chargeFor } from './prices'

interface Issue {
  siteId: number
  orderId: number
  visitId: number
  partId: number
  /** In units of the part, as a decimal. */
  quantity: string
  at: Date
  by: number | null
}

/**
 * Takes a part out of a store of the site, at its average cost: out of the one where it is kept for this order, else
 * out of the one that has most of it free.
 * @throws Refusal at `partId` when there is no such part, at `quantity` when there is not enough of it
 */
export async function issuePart(tx: Tx, { siteId, orderId, quantity, partId, ...moving }: Issue): Promise<typeof parts.$inferSelect> {
  const [part] = await tx.select().from(parts).where(eq(parts.id, partId))
  if (!part) refuse('part_unknown', 'Choose a part from the list.', 'partId')
  const levels = await levelsWhere(tx, and(eq(stockLevels.partId, partId), eq(stores.siteId, siteId), isNull(stores.retiredAt)))
  const kept = await tx
    .select({ storeId: reservations.storeId })
    .from(reservations)
    .where(and(eq(reservations.orderId, orderId), eq(reservations.partId, partId)))
  const standing = await Promise.all(
    levels.map(async ({ storeId, onHand }) => ({
      storeId,
      free: freeOf(onHand, await keptForOthers(tx, storeId, partId, orderId)),
      mine: kept.some((one) => one.storeId === storeId),
    })),
  )
  const best = standing.sort((a, b) => Number(b.mine) - Number(a.mine) || Number(b.free) - Number(a.free))
  const from = best.find(({ free }) => new Big(free).gte(quantity)) ?? best[0]
  if (!from) refuse('not_in_stock', `There are 0 ${part.unit} of it in stock.`, 'quantity')
  if (new Big(from.free).lt(quantity)) refuse('not_in_stock', `There are ${plain(from.free)} ${part.unit} of it in stock.`, 'quantity')
  const { costing } = await sectionOf(tx, siteId, 'planning')
  await goOut({ tx, partId, ...moving }, from.storeId, 'issue', quantity, orderId, part.unit, await chargeFor(tx, costing, siteId, partId))
  return part
}
