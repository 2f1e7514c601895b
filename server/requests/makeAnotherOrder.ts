import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { requestOrders, requests } from '../tables'
import { lockRequest } from './facts'
import { newOrderFrom } from './newOrderFrom'

/** One more order from a request that was accepted: the leak and the ceiling it spoilt are two jobs. */
export default command(contract.makeAnotherOrder, async ({ tx, who, input, now, tell }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  if (request.state !== 'accepted') refuse('not_accepted', 'Accept the request first; then more orders can be made of it.')
  const order = await newOrderFrom(tx, who, request, now, input.summary)
  await tx.insert(requestOrders).values({ requestId: request.id, orderId: order.id })
  await tx
    .update(requests)
    .set({ version: request.version + 1 })
    .where(eq(requests.id, request.id))
  await tell({
    kind: 'request.another',
    siteId: request.siteId,
    requestId: request.id,
    orderId: order.id,
    from: request.state,
    to: request.state,
    details: { order: order.number },
  })
  return { orderId: order.id, orderNumber: order.number }
})
