import { and, eq, gt, inArray, isNull, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { PartLying } from '#contract/field'
import { freeOf, inTakingOrder } from '#core/stock'
import type { Reader } from '#server/kit'
import { orders, reservations, stockLevels, stores } from '../tables'
import { keepsParts, plain } from './levels'

interface Asked {
  /** Of which stores. */
  where: SQL | undefined
  /** Whose van comes first. */
  accountId: number | null
  partIds?: readonly number[]
}

/** Where parts lie, by part: what is free in each store that has any of it, in the order in which it is taken. */
export async function whereLies(db: Reader, { where, accountId, partIds }: Asked): Promise<Map<number, PartLying[]>> {
  if (partIds && !partIds.length) return new Map()
  const kept = db
    .select({ storeId: reservations.storeId, partId: reservations.partId, quantity: sql<string>`sum(${reservations.quantity})`.as('kept_quantity') })
    .from(reservations)
    .innerJoin(orders, eq(orders.id, reservations.orderId))
    .where(keepsParts)
    .groupBy(reservations.storeId, reservations.partId)
    .as('kept')
  const rows = await db
    .select({
      partId: stockLevels.partId,
      storeId: stores.id,
      store: stores.name,
      carriedBy: stores.carriedBy,
      onHand: stockLevels.quantity,
      kept: kept.quantity,
    })
    .from(stockLevels)
    .innerJoin(stores, eq(stores.id, stockLevels.storeId))
    .leftJoin(kept, and(eq(kept.storeId, stockLevels.storeId), eq(kept.partId, stockLevels.partId)))
    .where(and(where, isNull(stores.retiredAt), gt(stockLevels.quantity, '0'), partIds ? inArray(stockLevels.partId, [...partIds]) : undefined))
  const found = new Map<number, PartLying[]>()
  for (const { partId, storeId, store, carriedBy, onHand, kept: others } of rows)
    found.set(partId, [
      ...(found.get(partId) ?? []),
      { storeId, store, free: plain(freeOf(onHand, others ?? '0')), mine: carriedBy !== null && carriedBy === accountId },
    ])
  return new Map([...found].map(([partId, lying]) => [partId, inTakingOrder(lying)]))
}
