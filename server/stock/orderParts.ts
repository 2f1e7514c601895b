import Big from 'big.js'
import { and, eq, inArray, isNull, sql } from 'drizzle-orm'
import * as contract from '#contract/stock'
import type { OrderPart } from '#contract/stock'
import { Refusal, refuse } from '#core/kit'
import { isFinished, isOver, ORDER_MOVES } from '#core/orders'
import { freeOf, toCome } from '#core/stock'
import { canAt, command, maySee, notFound, query } from '#server/kit'
import { lockOrderById, seenOrder } from '#server/orders'
import { orderPlans, parts, purchaseLines, purchases, reservations, stockLevels, stockMovements, stores } from '../tables'
import { goOn, lockWaiting } from './arrivals'
import { keptForOthers, levelsWhere, lockLevel, plain } from './levels'

export const readOrderParts = query(contract.readOrderParts, async ({ db, who, input }) => {
  const order = await seenOrder(db, who, input.orderId)
  const [[plan], kept, taken] = await Promise.all([
    db.select({ parts: orderPlans.parts }).from(orderPlans).where(eq(orderPlans.orderId, order.id)),
    db.select().from(reservations).where(eq(reservations.orderId, order.id)),
    db
      .select({ partId: stockMovements.partId, n: sql<string>`sum(-${stockMovements.quantity})` })
      .from(stockMovements)
      .where(eq(stockMovements.orderId, order.id))
      .groupBy(stockMovements.partId),
  ])
  const planned = plan?.parts ?? []
  const ids = [...new Set([...planned, ...kept, ...taken].map(({ partId }) => partId))]
  const [named, levels, coming] = ids.length
    ? await Promise.all([
        db.select().from(parts).where(inArray(parts.id, ids)),
        levelsWhere(db, and(inArray(stockLevels.partId, ids), eq(stores.siteId, order.siteId), isNull(stores.retiredAt))),
        db
          .select({ line: purchaseLines, purchase: purchases })
          .from(purchaseLines)
          .innerJoin(purchases, eq(purchases.id, purchaseLines.purchaseId))
          .where(and(inArray(purchaseLines.partId, ids), eq(purchases.siteId, order.siteId), inArray(purchases.state, ['asked', 'ordered'])))
          .orderBy(purchases.id),
      ])
    : [[], [], []]
  const sum = (rows: { quantity: string }[]) => plain(rows.reduce((all, { quantity }) => all.plus(quantity), new Big(0)).toString())
  const rows = ids.flatMap((partId): OrderPart[] => {
    const part = named.find((one) => one.id === partId)
    if (!part) return []
    const mine = kept.filter((one) => one.partId === partId)
    return [
      {
        partId,
        code: part.code,
        name: part.name,
        unit: part.unit,
        planned: sum(planned.filter((one) => one.partId === partId)),
        reserved: sum(mine),
        issued: plain(taken.find((one) => one.partId === partId)?.n ?? '0'),
        coming: coming
          .filter(({ line }) => line.partId === partId && toCome(line) !== '0')
          .map(({ line, purchase: { id, number, state, expectedOn } }) => ({
            purchaseId: id,
            number,
            state,
            quantity: plain(toCome(line)),
            expectedOn,
            forThis: line.orderId === order.id,
          })),
        stores: levels
          .filter((level) => level.partId === partId)
          .map(({ storeId, store, onHand, free }) => ({ storeId, store, onHand, free, reserved: sum(mine.filter((one) => one.storeId === storeId)) })),
      },
    ]
  })
  const open = !isFinished(order.state) && !isOver(order.state) && !order.discardedAt
  return {
    rows,
    mayReserve: open && canAt(who, 'orders.edit', order.siteId),
    mayMove: open && canAt(who, 'registers.edit', order.siteId),
    mayWait: canAt(who, 'orders.dispatch', order.siteId) && ORDER_MOVES.hold.from.includes(order.state),
  }
})

/** Keeps as much as is said, in all; what is kept for others stays theirs. */
export const reservePart = command(contract.reservePart, async ({ tx, who, input, now, tell }) => {
  const { orderId, partId, storeId, quantity } = input
  const order = await lockOrderById(tx, orderId)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  if (isFinished(order.state) || isOver(order.state) || order.discardedAt)
    throw new Refusal([{ code: 'order_over', sentence: 'The order is over: nothing is reserved for it any more.' }])
  const [[part], [store]] = await Promise.all([
    tx.select().from(parts).where(eq(parts.id, partId)),
    tx
      .select()
      .from(stores)
      .where(and(eq(stores.id, storeId), eq(stores.siteId, order.siteId), isNull(stores.retiredAt))),
  ])
  if (!part) refuse('part_unknown', 'Choose a part from the list.', 'partId')
  if (!store) refuse('store_unknown', 'Choose a store of the site of the order.', 'storeId')
  const { onHand } = await lockLevel(tx, storeId, partId)
  const others = await keptForOthers(tx, storeId, partId, orderId)
  const free = freeOf(onHand, others)
  if (new Big(free).lt(quantity)) refuse('not_in_stock', `There are ${plain(free)} ${part.unit} of it free in ${store.name}.`, 'quantity')
  const mine = and(eq(reservations.orderId, orderId), eq(reservations.partId, partId), eq(reservations.storeId, storeId))
  const [before] = await tx.select().from(reservations).where(mine)
  if (plain(before?.quantity ?? '0') === plain(quantity)) return { orderId }
  if (Number(quantity) === 0) await tx.delete(reservations).where(mine)
  else
    await tx
      .insert(reservations)
      .values({ orderId, partId, storeId, quantity, at: now, by: who.accountId })
      .onDuplicateKeyUpdate({ set: { quantity, at: now, by: who.accountId } })
  // What is let go is kept for who waits for it.
  if (Number(quantity) < Number(before?.quantity ?? 0)) await goOn({ tx, who, now, tell }, await lockWaiting(tx, order.siteId, [partId]), [partId])
  const released = Number(quantity) === 0
  await tell({
    kind: released ? 'stock.release' : 'stock.reserve',
    siteId: order.siteId,
    orderId,
    details: { part: part.name, quantity: plain(released ? before!.quantity : quantity), unit: part.unit, store: store.name },
  })
  return { orderId }
})
