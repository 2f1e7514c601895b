import * as contract from '#contract/orders'
import { decideApproval } from './decideApproval'
import { orderMove } from './orderMove'

export default orderMove(contract.sendBackOrder, 'sendBack', async ({ tx, who, now, order, input }) => {
  await decideApproval(tx, who, now, order.id, 'sent_back', input.reason || null, order.estimateMinor ?? 0)
  return {}
})
