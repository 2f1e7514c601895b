import * as contract from '#contract/orders'
import { decideApproval } from './decideApproval'
import { orderMove } from './orderMove'

export default orderMove(contract.approveOrder, 'approve', async ({ tx, who, now, order, input }) => {
  await decideApproval(tx, who, now, order.id, 'approved', input.reason || null, order.estimateMinor!)
  return {}
})
