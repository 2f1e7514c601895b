import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { moveRequest } from '#core/requests'
import { command, maySee, notFound, showOnOrder } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { lockOrderById } from '#server/orders'
import { isOver } from '#core/orders'
import { requestOrders } from '../tables'
import { lockRequest, requestFacts } from './facts'
import type { RequestRecord } from './facts'
import { newOrderFrom } from './newOrderFrom'
import { saveRequestMove } from './saveRequestMove'

export default command(contract.acceptRequest, async ({ tx, who, input, now }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  const to = moveRequest(requestFacts(request), 'accept', null)
  const order = input.orderId ? await existingOrder(tx, who, request, input.orderId) : await newOrderFrom(tx, who, request, now, request.summary)
  await tx.insert(requestOrders).values({ requestId: request.id, orderId: order.id })
  await showOnOrder(tx, request.id, order.id)
  await saveRequestMove(tx, who, now, request, 'accept', to, {}, { orderId: order.id, details: { order: order.number, joined: input.orderId !== undefined } })
  return { orderId: order.id, orderNumber: order.number }
})

async function existingOrder(tx: Tx, who: Asker, request: RequestRecord, orderId: number) {
  const order = await lockOrderById(tx, orderId)
  if (!order || !maySee(who, order.siteId) || order.siteId !== request.siteId) throw notFound('order')
  if (isOver(order.state) || order.discardedAt) refuse('order_over', `${order.number} is over; accept it as a new order.`, 'orderId')
  return order
}
