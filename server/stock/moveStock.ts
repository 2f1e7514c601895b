import Big from 'big.js'
import { and, eq, isNull, sql } from 'drizzle-orm'
import * as contract from '#contract/stock'
import type { StockLevel } from '#contract/stock'
import { Refusal, refuse } from '#core/kit'
import type { Reason } from '#core/kit'
import { isSettled, isUnapproved } from '#core/orders'
import { averageAfter, freeOf, STOCK_ACT_NAMES } from '#core/stock'
import type { MovementKind } from '#core/stock'
import { command, maySee, notFound } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { sectionOf } from '#server/orders'
import { orders, parts, reservations, stockLevels, stockMovements, stores } from '../tables'
import { goOn, lockWaiting } from './arrivals'
import { keptIn, levelsWhere, lockLevel, plain } from './levels'
import { chargeFor } from './prices'

export default command(contract.moveStock, async ({ tx, who, input, now, tell }) => {
  const { act, storeId, partId, quantity, toStoreId } = input
  const reason = input.reason || null
  const [known] = await tx
    .select({ store: stores, part: { name: parts.name, unit: parts.unit } })
    .from(stores)
    .leftJoin(parts, and(eq(parts.id, partId), isNull(parts.retiredAt)))
    .where(eq(stores.id, storeId))
  const store = seenStore(who, known?.store, 'storeId')
  const part = known?.part
  if (!part) refuse('part_unknown', 'Choose a part from the list.', 'partId')
  const asked = needed(input)
  if (asked.length) throw new Refusal(asked)
  const order = act === 'issue' || act === 'return' ? await orderFor(tx, act, store.siteId, input.orderNumber!) : null
  const to = act === 'transfer' ? await myStore(tx, who, toStoreId!, 'toStoreId') : null
  if (to && to.id === store.id) refuse('same_store', 'Choose another store to move it to.', 'toStoreId')
  const moving: Moving = { tx, at: now, by: who.accountId, partId, reason }
  const site = to?.siteId ?? store.siteId
  // Orders first, and then what lies in the stores: whoever keeps parts for an order takes them in that order as well.
  const waiting = act === 'issue' ? [] : await lockWaiting(tx, site, [partId])
  // Whoever moves between the same two stores takes them in the same order.
  if (to) for (const id of [storeId, to.id].sort((a, b) => a - b)) await lockLevel(tx, id, partId)
  const chargeMinor = order && act === 'issue' ? await chargeFor(tx, (await sectionOf(tx, store.siteId, 'planning')).costing, store.siteId, partId) : null
  const told = () =>
    tell({
      kind: 'stock.move',
      siteId: store.siteId,
      register: 'parts',
      recordId: partId,
      reason,
      ...(order ? { orderId: order.id } : {}),
      details: { act: STOCK_ACT_NAMES[act], part: part.name, quantity: plain(quantity), unit: part.unit, store: store.name, to: to?.name ?? null },
    })
  const level = async () => (await levelsWhere(tx, and(eq(stockLevels.storeId, storeId), eq(stockLevels.partId, partId))))[0]
  if (act === 'issue') {
    // Many want the same part at once, and wait for as long as it is held: what can be done is done before.
    await told()
    const before = await level()
    const taken = await goOut(moving, storeId, 'issue', quantity, order!.id, part.unit, chargeMinor)
    return { level: levelAfter(before!, taken, quantity) }
  }
  switch (act) {
    case 'receipt':
      await comeIn(moving, storeId, 'receipt', quantity, input.unitCostMinor!, null)
      break
    case 'return':
      await comeBack(moving, storeId, quantity, order!.id, part.unit)
      break
    case 'transfer': {
      const { costMinor } = await goOut(moving, storeId, 'transfer', quantity, null, part.unit)
      await comeIn(moving, to!.id, 'transfer', quantity, costMinor, null)
      break
    }
    case 'count':
      await correct(moving, storeId, quantity)
  }
  await told()
  await goOn({ tx, who, now, tell }, waiting, [partId])
  return { level: (await level())! }
})

/** How a part stands after so much was taken, from what was found when it was held. */
function levelAfter(before: StockLevel, { onHand, others, mine, costMinor }: Taken, quantity: string): StockLevel {
  const left = new Big(onHand).minus(quantity)
  const stays = new Big(mine).minus(quantity)
  const reserved = new Big(others).plus(stays.gt(0) ? stays : 0).toString()
  return {
    ...before,
    onHand: plain(left.toString()),
    reserved: plain(reserved),
    free: plain(freeOf(left.toString(), reserved)),
    averageCostMinor: costMinor,
  }
}

/** What an act cannot do without. */
function needed({ act, unitCostMinor, orderNumber, toStoreId, reason }: MoveInput): Reason[] {
  const missing = (is: boolean, field: string, sentence: string): Reason[] => (is ? [{ code: 'needed', sentence, field }] : [])
  return [
    ...missing(act === 'receipt' && unitCostMinor === undefined, 'unitCostMinor', 'Say what one of it cost.'),
    ...missing((act === 'issue' || act === 'return') && !orderNumber, 'orderNumber', 'Say which order.'),
    ...missing(act === 'transfer' && toStoreId === undefined, 'toStoreId', 'Choose the store it goes to.'),
    ...missing(act === 'count' && !reason, 'reason', 'Say why it differs, or that it was counted.'),
  ]
}

interface MoveInput {
  act: string
  unitCostMinor?: number
  orderNumber?: string
  toStoreId?: number
  reason?: string
}

export async function myStore(tx: Tx, who: Asker, id: number, field: string) {
  const [store] = await tx.select().from(stores).where(eq(stores.id, id))
  return seenStore(who, store, field)
}

/** A store that is in use, of a site that is theirs. @throws Refusal at `field`, ProblemReply 404 */
function seenStore(who: Asker, store: typeof stores.$inferSelect | undefined, field: string): typeof stores.$inferSelect {
  if (!store || store.retiredAt) refuse('store_unknown', 'Choose a store from the list.', field)
  if (!maySee(who, store.siteId)) throw notFound('store')
  return store
}

async function orderFor(tx: Tx, act: 'issue' | 'return', siteId: number, number: string): Promise<{ id: number }> {
  const [order] = await tx
    .select({ id: orders.id, state: orders.state, discardedAt: orders.discardedAt })
    .from(orders)
    .where(and(eq(orders.siteId, siteId), eq(orders.number, number.trim().toUpperCase())))
  if (!order || order.discardedAt) refuse('order_unknown', `There is no order ${number} at the site of this store.`, 'orderNumber')
  if (act === 'issue' && isUnapproved(order.state))
    refuse('unapproved', `${number.toUpperCase()} has not been approved: nothing is issued to it yet.`, 'orderNumber')
  if (isSettled(order.state)) refuse('order_over', `${number.toUpperCase()} is settled: nothing is put on it any more.`, 'orderNumber')
  return order
}

export interface Moving {
  tx: Tx
  at: Date
  by: number | null
  partId: number
  reason?: string | null
  visitId?: number | null
}

/** What was found when something was taken: how much there was before, how much of it kept for whom, and what one of it costs. */
interface Taken {
  onHand: string
  others: string
  mine: string
  costMinor: number
}

/** Takes out of a store what is not kept for others, and uses up what was kept for this order. */
export async function goOut(
  { tx, partId, ...rest }: Moving,
  storeId: number,
  kind: MovementKind,
  quantity: string,
  orderId: number | null,
  unit: string,
  /** What the order is charged for one, where that is not the average. */
  chargeMinor: number | null = null,
): Promise<Taken> {
  const { onHand, averageCostMinor } = await lockLevel(tx, storeId, partId)
  const { others, mine } = await keptIn(tx, storeId, partId, orderId)
  const free = freeOf(onHand, others)
  if (new Big(free).lt(quantity)) {
    const kept = Number(others) ? ` ${plain(others)} ${unit} more are reserved for other orders.` : ''
    refuse('not_in_stock', `There are ${plain(free)} ${unit} of it free in this store.${kept}`, 'quantity')
  }
  await tx
    .update(stockLevels)
    .set({ quantity: sql`${stockLevels.quantity} - ${quantity}` })
    .where(and(eq(stockLevels.storeId, storeId), eq(stockLevels.partId, partId)))
  await tx.insert(stockMovements).values({ ...rest, partId, storeId, kind, quantity: `-${quantity}`, unitCostMinor: averageCostMinor, chargeMinor, orderId })
  if (orderId !== null && Number(mine) > 0) await useUp(tx, orderId, partId, storeId, quantity)
  return { onHand, others, mine, costMinor: averageCostMinor }
}

/** What was kept for an order is taken: as much less is kept. */
async function useUp(tx: Tx, orderId: number, partId: number, storeId: number, quantity: string): Promise<void> {
  const mine = and(eq(reservations.orderId, orderId), eq(reservations.partId, partId), eq(reservations.storeId, storeId))
  await tx
    .update(reservations)
    .set({ quantity: sql`greatest(0, ${reservations.quantity} - ${quantity})` })
    .where(mine)
  await tx.delete(reservations).where(and(mine, eq(reservations.quantity, '0')))
}

/** Puts into a store at a price, which moves its average. */
export async function comeIn(
  { tx, partId, ...rest }: Moving,
  storeId: number,
  kind: MovementKind,
  quantity: string,
  unitCostMinor: number,
  orderId: number | null,
  more: { chargeMinor?: number | null; purchaseLineId?: number } = {},
): Promise<void> {
  const { onHand, averageCostMinor } = await lockLevel(tx, storeId, partId)
  await tx
    .update(stockLevels)
    .set({ quantity: sql`${stockLevels.quantity} + ${quantity}`, averageCostMinor: averageAfter(onHand, averageCostMinor, quantity, unitCostMinor) })
    .where(and(eq(stockLevels.storeId, storeId), eq(stockLevels.partId, partId)))
  await tx.insert(stockMovements).values({ ...rest, ...more, partId, storeId, kind, quantity, unitCostMinor, orderId })
}

/** Takes back no more than the order took, at what it cost the order. */
export async function comeBack(moving: Moving, storeId: number, quantity: string, orderId: number, unit: string): Promise<void> {
  const [taken] = await moving.tx
    .select({
      quantity: sql<string>`coalesce(sum(-${stockMovements.quantity}), 0)`,
      cost: sql<string>`coalesce(sum(-${stockMovements.quantity} * ${stockMovements.unitCostMinor}), 0)`,
      charge: sql<string | null>`case when max(${stockMovements.chargeMinor}) is null then null
        else sum(-${stockMovements.quantity} * coalesce(${stockMovements.chargeMinor}, ${stockMovements.unitCostMinor})) end`,
    })
    .from(stockMovements)
    .where(and(eq(stockMovements.orderId, orderId), eq(stockMovements.partId, moving.partId)))
  const has = new Big(taken!.quantity)
  if (has.lt(quantity)) refuse('not_taken', `The order has ${plain(taken!.quantity)} ${unit} of it: no more can come back.`, 'quantity')
  await comeIn(moving, storeId, 'return', quantity, Math.round(Number(taken!.cost) / Number(taken!.quantity)), orderId, {
    chargeMinor: taken!.charge === null ? null : Math.round(Number(taken!.charge) / Number(taken!.quantity)),
  })
}

/** The difference between what was found and what should be there, as a movement; none when they agree. */
export async function correct({ tx, partId, ...rest }: Moving, storeId: number, found: string): Promise<boolean> {
  const { onHand, averageCostMinor } = await lockLevel(tx, storeId, partId)
  const difference = new Big(found).minus(onHand)
  if (difference.eq(0)) return false
  await tx
    .update(stockLevels)
    .set({ quantity: found })
    .where(and(eq(stockLevels.storeId, storeId), eq(stockLevels.partId, partId)))
  await tx.insert(stockMovements).values({ ...rest, partId, storeId, kind: 'correction', quantity: difference.toString(), unitCostMinor: averageCostMinor })
  return true
}
