import { eq } from 'drizzle-orm'
import { ORDER_STATE_NAMES } from '#core/orders'
import { conflict, maySee, notFound, statement } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { orders } from '../tables'
import type { OrderRecord } from './orderRecord'

/**
 * The order, locked for this change.
 * @throws ProblemReply 404 when it is not theirs to see, 409 when it changed since `version`
 */
export async function lockOrder(tx: Tx, who: Asker, id: number, version: number): Promise<OrderRecord> {
  const order = await lockOrderById(tx, id)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  if (order.version !== version) throw conflict(order.version, [{ field: 'state', theirs: ORDER_STATE_NAMES[order.state], yours: null }])
  return order
}

const lock = statement(['id'], (tx, { id }) => tx.select().from(orders).where(eq(orders.id, id)).for('update'))

export async function lockOrderById(tx: Tx, id: number): Promise<OrderRecord | undefined> {
  const [order] = await lock(tx, { id })
  return order
}
