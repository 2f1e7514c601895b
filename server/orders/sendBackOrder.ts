import * as contract from '#contract/orders'
import { sendBackAsks } from './asks'
import { orderMove } from './orderMove'

export default orderMove(contract.sendBackOrder, 'sendBack', async ({ tx, who, now, order, input }) => {
  await sendBackAsks(tx, who, now, order.id, input.reason || null)
  return {}
})
