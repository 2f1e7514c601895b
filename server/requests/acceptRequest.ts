import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { moveRequest, PRIORITIES } from '#core/requests'
import { command, notFound, maySee, recordEvent } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { lockOrderById, promiseFor, takeNumber } from '#server/orders'
import { attachments, categories, orders, orderShares, requestOrders } from '../tables'
import { lockRequest, requestFacts } from './facts'
import type { RequestRecord } from './facts'
import { saveRequestMove } from './saveRequestMove'

export default command(contract.acceptRequest, async ({ tx, who, input, now }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  const to = moveRequest(requestFacts(request), 'accept', null)
  const order = input.orderId ? await existingOrder(tx, who, request, input.orderId) : await newOrder(tx, who, request, now)
  await tx.insert(requestOrders).values({ requestId: request.id, orderId: order.id })
  await tx.update(attachments).set({ orderId: order.id }).where(eq(attachments.requestId, request.id))
  await saveRequestMove(tx, who, now, request, 'accept', to, {}, { orderId: order.id, details: { order: order.number, joined: input.orderId !== undefined } })
  return { orderId: order.id, orderNumber: order.number }
})

/** An order that starts with everything the request held, so that nothing is typed twice. */
async function newOrder(tx: Tx, who: Asker, request: RequestRecord, now: Date) {
  const [category] = request.categoryId ? await tx.select().from(categories).where(eq(categories.id, request.categoryId)) : []
  const promise = await promiseFor(tx, request.siteId, request.priority!, request.receivedAt, request.categoryId)
  const number = await takeNumber(tx, request.siteId, 'order')
  const [saved] = await tx
    .insert(orders)
    .values({
      ...promise,
      number,
      siteId: request.siteId,
      state: 'draft',
      kind: 'repair',
      summary: request.summary,
      description: request.description,
      placeId: request.placeId,
      assetId: request.assetId,
      categoryId: request.categoryId,
      tradeId: category?.tradeId ?? null,
      leadId: who.accountId,
      consequence: request.consequence,
      hazardSeverity: request.hazardSeverity,
      hazardLikelihood: request.hazardLikelihood,
      urgency: request.urgency,
      priority: request.priority,
      priorityRank: PRIORITIES.indexOf(request.priority!) + 1,
      prioritySentence: request.prioritySentence,
      contactName: request.reporterName,
      contactPhone: request.reporterPhone,
      outsideReference: request.outsideReference,
      createdAt: now,
      createdBy: who.accountId,
    })
    .$returningId()
  await tx.insert(orderShares).values({ orderId: saved!.id, payerId: request.payerId!, shareBp: 10_000, position: 0 })
  await recordEvent(tx, who, now, { kind: 'order.create', siteId: request.siteId, orderId: saved!.id, to: 'draft', details: { request: request.number } })
  return { id: saved!.id, number }
}

async function existingOrder(tx: Tx, who: Asker, request: RequestRecord, orderId: number) {
  const order = await lockOrderById(tx, orderId)
  if (!order || !maySee(who, order.siteId) || order.siteId !== request.siteId) throw notFound('order')
  if (['done', 'checked', 'closed', 'cancelled'].includes(order.state) || order.discardedAt)
    refuse('order_over', `${order.number} is over; accept it as a new order.`, 'orderId')
  return order
}
