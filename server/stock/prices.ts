import { and, desc, eq } from 'drizzle-orm'
import type { Costing } from '#core/orders'
import type { Reader } from '#server/kit'
import { stockMovements, stores } from '../tables'

/** What was paid for one of a part at a site last, in minor units; null for what was never bought there. */
export async function lastPrice(db: Reader, siteId: number, partId: number): Promise<number | null> {
  const [row] = await db
    .select({ cost: stockMovements.unitCostMinor })
    .from(stockMovements)
    .innerJoin(stores, eq(stores.id, stockMovements.storeId))
    .where(and(eq(stockMovements.partId, partId), eq(stores.siteId, siteId), eq(stockMovements.kind, 'receipt')))
    .orderBy(desc(stockMovements.at), desc(stockMovements.id))
    .limit(1)
  return row?.cost ?? null
}

/** What an order is charged for one of a part, where that is not its average. */
export const chargeFor = async (db: Reader, costing: Costing, siteId: number, partId: number): Promise<number | null> =>
  costing === 'last' ? lastPrice(db, siteId, partId) : null
