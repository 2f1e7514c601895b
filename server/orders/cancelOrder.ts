import * as contract from '#contract/orders'
import { withdrawAsks } from './asks'
import { endLiveVisits } from './endVisits'
import { orderMove } from './orderMove'

export default orderMove(contract.cancelOrder, 'cancel', async ({ tx, who, order, now, input, details }) => {
  await withdrawAsks(tx, who, now, order.id, input.reason || null)
  details.taken = await endLiveVisits(tx, order.id, now)
  return { heldFrom: null, holdReason: null, closedAt: now }
})
