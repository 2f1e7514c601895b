import Big from 'big.js'
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm'
import { Refusal } from '#core/kit'
import { moveOrder } from '#core/orders'
import type { OrderState } from '#core/orders'
import { PRIORITIES } from '#core/requests'
import { freeOf } from '#core/stock'
import type { Asker, Reader, Tell, Tx } from '#server/kit'
import { factsOf, resumedTarget, saveMove } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { orderPlans, orders, parts, reservations, stockLevels, stockMovements, stores } from '../tables'
import { keptForOthers, lockLevel, plain } from './levels'

/** What an order still lacks of the parts planned for it, above nought: planned, less what is kept for it and what it took. */
export async function lackingOf(db: Reader, orderIds: number[]): Promise<Map<number, Map<number, Big>>> {
  if (!orderIds.length) return new Map()
  const [plans, kept, taken] = await Promise.all([
    db.select({ orderId: orderPlans.orderId, parts: orderPlans.parts }).from(orderPlans).where(inArray(orderPlans.orderId, orderIds)),
    db.select().from(reservations).where(inArray(reservations.orderId, orderIds)),
    db
      .select({ orderId: stockMovements.orderId, partId: stockMovements.partId, n: sql<string>`sum(-${stockMovements.quantity})` })
      .from(stockMovements)
      .where(inArray(stockMovements.orderId, orderIds))
      .groupBy(stockMovements.orderId, stockMovements.partId),
  ])
  return new Map(
    plans.map(({ orderId, parts: planned }) => {
      const lacking = new Map<number, Big>()
      for (const { partId, quantity } of planned) lacking.set(partId, (lacking.get(partId) ?? new Big(0)).plus(quantity))
      for (const one of kept) if (one.orderId === orderId && lacking.has(one.partId)) lacking.set(one.partId, lacking.get(one.partId)!.minus(one.quantity))
      for (const one of taken) if (one.orderId === orderId && lacking.has(one.partId)) lacking.set(one.partId, lacking.get(one.partId)!.minus(one.n))
      for (const [partId, left] of lacking) if (left.lte(0)) lacking.delete(partId)
      return [orderId, lacking]
    }),
  )
}

/**
 * Orders on hold at a site that wait for one of these parts, locked: the most urgent first, and of those the one that
 * came first. Locked before anything in the stores is.
 */
export async function lockWaiting(tx: Tx, siteId: number, partIds: number[]): Promise<OrderRecord[]> {
  const held = and(eq(orders.siteId, siteId), eq(orders.state, 'on_hold'), eq(orders.holdReason, 'part'), isNull(orders.discardedAt))
  const found = await tx.select({ id: orders.id, parts: orderPlans.parts }).from(orders).innerJoin(orderPlans, eq(orderPlans.orderId, orders.id)).where(held)
  const ids = found.filter((row) => row.parts.some(({ partId }) => partIds.includes(partId))).map(({ id }) => id)
  if (!ids.length) return []
  const rows = await tx
    .select()
    .from(orders)
    .where(and(held, inArray(orders.id, ids)))
    .orderBy(asc(orders.id))
    .for('update')
  const rank = ({ priority }: OrderRecord) => (priority === null ? PRIORITIES.length : PRIORITIES.indexOf(priority))
  return rows.sort((a, b) => rank(a) - rank(b) || a.id - b.id)
}

/**
 * What is free of these parts is kept for the orders that wait for it, in their order; one that lacks nothing any more
 * goes on, and who leads it hears of it. @param waiting from `lockWaiting`
 */
export async function goOn({ tx, who, now, tell }: { tx: Tx; who: Asker; now: Date; tell: Tell }, waiting: OrderRecord[], partIds: number[]): Promise<void> {
  for (const order of waiting) {
    const lacking = (await lackingOf(tx, [order.id])).get(order.id)!
    const came: string[] = []
    for (const partId of partIds) {
      const lacks = lacking.get(partId)
      if (!lacks) continue
      const kept = await keepFree(tx, order, partId, lacks, now, who.accountId)
      if (kept.eq(0)) continue
      if (kept.eq(lacks)) lacking.delete(partId)
      const [part] = await tx.select({ name: parts.name, unit: parts.unit }).from(parts).where(eq(parts.id, partId))
      came.push(`${plain(kept.toString())} ${part!.unit} ${part!.name}`)
    }
    if (!came.length) continue
    const reason = `What it waited for is here: ${came.join(', ')}`.slice(0, 500)
    const to = lacking.size ? null : await onwards(tx, who, now, order, reason)
    await tell({ kind: 'stock.arrived', siteId: order.siteId, orderId: order.id, details: { parts: came.join(', '), goesOn: to !== null } })
    if (!to) continue
    const more = {
      heldFrom: null,
      holdReason: null,
      ...(await resumedTarget(tx, order, now)),
      ...(order.clockStoppedAt ? { toldStanding: 'none' as const } : {}),
    }
    await saveMove(tx, who, now, order, 'resume', to, reason, more)
  }
}

/** The state an order goes on to; null where a rule of the site wants to hear more before it does, and somebody resumes it by hand. */
async function onwards(tx: Tx, who: Asker, now: Date, order: OrderRecord, reason: string): Promise<OrderState | null> {
  try {
    return moveOrder(await factsOf(tx, order, who, now), 'resume', reason)
  } catch (error) {
    if (error instanceof Refusal) return null
    throw error
  }
}

/** Keeps as much of a part for an order as is free in the stores of its site, up to what it lacks. @returns how much that was */
async function keepFree(tx: Tx, order: OrderRecord, partId: number, lacks: Big, at: Date, by: number | null): Promise<Big> {
  const levels = await tx
    .select({ storeId: stockLevels.storeId })
    .from(stockLevels)
    .innerJoin(stores, eq(stores.id, stockLevels.storeId))
    .where(and(eq(stockLevels.partId, partId), eq(stores.siteId, order.siteId), isNull(stores.retiredAt)))
    .orderBy(asc(stockLevels.storeId))
  let all = new Big(0)
  for (const { storeId } of levels) {
    const { onHand } = await lockLevel(tx, storeId, partId)
    const free = new Big(freeOf(onHand, await keptForOthers(tx, storeId, partId, null)))
    const left = lacks.minus(all)
    const take = free.lt(left) ? free : left
    if (take.lte(0)) continue
    const quantity = take.toString()
    await tx
      .insert(reservations)
      .values({ orderId: order.id, partId, storeId, quantity, at, by })
      .onDuplicateKeyUpdate({ set: { quantity: sql`${reservations.quantity} + ${quantity}`, at, by } })
    all = all.plus(take)
  }
  return all
}
