import * as contract from '#contract/orders'
import { endLiveVisits } from './endVisits'
import { orderMove } from './orderMove'

export default orderMove(contract.cancelOrder, 'cancel', async ({ tx, order, now }) => {
  await endLiveVisits(tx, order.id, now)
  return { heldFrom: null, holdReason: null, closedAt: now }
})
