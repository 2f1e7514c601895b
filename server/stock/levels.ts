import { and, eq, isNull, notInArray, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { StockLevel } from '#contract/stock'
import { FINISHED_STATES, OVER_STATES } from '#core/orders'
import { freeOf } from '#core/stock'
import type { Reader, Tx } from '#server/kit'
import { orders, parts, purchaseLines, purchases, reservations, stockLevels, stores } from '../tables'

/** Orders whose parts are kept: those that are not over and whose work is not finished. */
export const keepsParts = and(notInArray(orders.state, [...FINISHED_STATES, ...OVER_STATES]), isNull(orders.discardedAt))

/** A decimal of the database without the noughts at its end. */
export const plain = (decimal: string | number | null): string => String(Number(decimal ?? 0))

/** Levels that fit, with what is kept of each for orders. */
export async function levelsWhere(db: Reader, where: SQL | undefined): Promise<StockLevel[]> {
  const rows = await db
    .select({
      storeId: stockLevels.storeId,
      store: stores.name,
      partId: stockLevels.partId,
      part: parts.name,
      unit: parts.unit,
      onHand: stockLevels.quantity,
      averageCostMinor: stockLevels.averageCostMinor,
      onOrder: sql<string>`(select coalesce(sum(greatest(0, ${purchaseLines.quantity} - ${purchaseLines.received})), 0) from ${purchaseLines}
        join ${purchases} on ${purchases.id} = ${purchaseLines.purchaseId} where ${purchases.state} = 'ordered'
        and ${purchases.storeId} = ${stockLevels.storeId} and ${purchaseLines.partId} = ${stockLevels.partId})`,
      reserved: sql<string>`(select coalesce(sum(${reservations.quantity}), 0) from ${reservations} join ${orders} on ${orders.id} = ${reservations.orderId}
        where ${reservations.storeId} = ${stockLevels.storeId} and ${reservations.partId} = ${stockLevels.partId} and ${keepsParts})`,
    })
    .from(stockLevels)
    .innerJoin(parts, eq(parts.id, stockLevels.partId))
    .innerJoin(stores, eq(stores.id, stockLevels.storeId))
    .where(where)
    .orderBy(stores.name, parts.name)
  return rows.map((row) => ({
    ...row,
    onHand: plain(row.onHand),
    onOrder: plain(row.onOrder),
    reserved: plain(row.reserved),
    free: plain(freeOf(row.onHand, row.reserved)),
  }))
}

/** The level of a part in a store, locked: whoever takes or keeps of it comes one after the other. There from now on. */
export async function lockLevel(tx: Tx, storeId: number, partId: number): Promise<{ onHand: string; averageCostMinor: number }> {
  const read = () =>
    tx
      .select({ onHand: stockLevels.quantity, averageCostMinor: stockLevels.averageCostMinor })
      .from(stockLevels)
      .where(and(eq(stockLevels.storeId, storeId), eq(stockLevels.partId, partId)))
      .for('update')
  // Others wait for as long as this is held: what is there already costs one statement.
  const [there] = await read()
  if (there) return there
  await tx
    .insert(stockLevels)
    .values({ storeId, partId, quantity: '0', averageCostMinor: 0 })
    .onDuplicateKeyUpdate({ set: { quantity: sql`${stockLevels.quantity}` } })
  return (await read())[0]!
}

/** How much of a part in a store is kept for orders other than this one, and how much for this one. */
export async function keptIn(tx: Tx, storeId: number, partId: number, orderId: number | null): Promise<{ others: string; mine: string }> {
  const isMine = orderId === null ? sql`false` : eq(reservations.orderId, orderId)
  const [row] = await tx
    .select({
      others: sql<string>`coalesce(sum(if(${isMine}, 0, ${reservations.quantity})), 0)`,
      mine: sql<string>`coalesce(sum(if(${isMine}, ${reservations.quantity}, 0)), 0)`,
    })
    .from(reservations)
    .innerJoin(orders, eq(orders.id, reservations.orderId))
    .where(and(eq(reservations.storeId, storeId), eq(reservations.partId, partId), keepsParts))
  return row!
}

export const keptForOthers = async (tx: Tx, storeId: number, partId: number, orderId: number | null): Promise<string> =>
  (await keptIn(tx, storeId, partId, orderId)).others
