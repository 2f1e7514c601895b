import * as contract from '#contract/orders'
import { approveAsks } from './asks'
import { orderMove } from './orderMove'

export default orderMove(contract.approveOrder, 'approve', async ({ tx, who, now, order, facts, input }) => {
  await approveAsks(tx, who, now, order, facts, input.reason || null)
  return {}
})
