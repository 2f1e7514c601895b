import Big from 'big.js'
import { and, desc, eq, sql } from 'drizzle-orm'
import { refuse } from '#core/kit'
import type { Tx } from '#server/kit'
import { parts, stockLevels, stockMovements, stores } from '../tables'

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
 * Takes a part out of the store of the site that holds most of it, at its average cost.
 * @throws Refusal at `partId` when there is no such part, at `quantity` when there is not enough of it
 */
export async function issuePart(tx: Tx, { siteId, quantity, ...to }: Issue): Promise<typeof parts.$inferSelect> {
  const [part] = await tx.select().from(parts).where(eq(parts.id, to.partId))
  if (!part) refuse('part_unknown', 'Choose a part from the list.', 'partId')
  const [level] = await tx
    .select({ level: stockLevels })
    .from(stockLevels)
    .innerJoin(stores, eq(stores.id, stockLevels.storeId))
    .where(and(eq(stockLevels.partId, part.id), eq(stores.siteId, siteId)))
    .orderBy(desc(stockLevels.quantity))
    .limit(1)
    .for('update')
  const inStock = new Big(level?.level.quantity ?? '0')
  if (inStock.lt(quantity)) refuse('not_in_stock', `There are ${inStock.toString()} ${part.unit} of it in stock.`, 'quantity')
  const { storeId, averageCostMinor } = level!.level
  await tx
    .update(stockLevels)
    .set({ quantity: sql`${stockLevels.quantity} - ${quantity}` })
    .where(and(eq(stockLevels.storeId, storeId), eq(stockLevels.partId, part.id)))
  await tx.insert(stockMovements).values({ ...to, storeId, kind: 'issue', quantity: `-${quantity}`, unitCostMinor: averageCostMinor })
  return part
}
