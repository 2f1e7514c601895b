import * as contract from '#contract/orders'
import { withdrawAsks } from './asks'
import { recallVisits } from '#server/dispatch/records'
import { orderMove } from './orderMove'

export default orderMove(contract.cancelOrder, 'cancel', async ({ tx, who, order, now, input, details }) => {
  await withdrawAsks(tx, who, now, order.id, input.reason || null)
  details.taken = await recallVisits(tx, order.id, now)
  return { heldFrom: null, holdReason: null, closedAt: now }
})
