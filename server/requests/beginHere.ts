import { eq } from 'drizzle-orm'
import { moveRequest } from '#core/requests'
import type { Priority } from '#core/requests'
import { showOnOrder } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { beginOrder } from '#server/orders'
import { requestOrders, requests } from '../tables'
import { lockRequestById, requestFacts } from './facts'
import { saveRequestMove } from './saveRequestMove'

interface Beginning {
  requestId: number
  priority: Priority
  payerId: number | null
  teamId: number
  estimateMinor: number
}

/** A request is taken on where somebody stands: the draft of its order, led by nobody yet. @throws Refusal without a place or a payer */
export async function beginHere(tx: Tx, who: Asker, at: Date, { requestId, priority, payerId, ...more }: Beginning): Promise<{ id: number; number: string }> {
  await tx.update(requests).set({ priority, payerId }).where(eq(requests.id, requestId))
  const request = await lockRequestById(tx, who, requestId)
  const to = moveRequest(requestFacts(request), 'begin', null)
  const { siteId, summary, description, placeId, assetId } = request
  const order = await beginOrder(
    tx,
    who,
    at,
    {
      ...{ siteId, summary, description, placeId, assetId, priority, promisedFrom: request.receivedAt, payerId: payerId! },
      // Whoever reported it themselves needs nobody to call.
      contactName: request.reporterName === who.name ? null : request.reporterName,
      ...{ contactPhone: request.reporterPhone, leadId: null, ...more },
    },
    { request: request.number },
  )
  await tx.insert(requestOrders).values({ requestId, orderId: order.id })
  await showOnOrder(tx, requestId, order.id)
  await saveRequestMove(tx, who, at, request, 'begin', to, {}, { orderId: order.id, details: { order: order.number } })
  return order
}
