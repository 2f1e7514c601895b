import * as contract from '#contract/orders'
import { approvals } from '../tables'
import { orderMove } from './orderMove'

export default orderMove(contract.submitOrder, 'submit', async ({ tx, who, now, order }) => {
  await tx.insert(approvals).values({ orderId: order.id, amountMinor: order.estimateMinor!, askedAt: now, askedBy: who.accountId })
  return { submittedBy: who.accountId }
})
