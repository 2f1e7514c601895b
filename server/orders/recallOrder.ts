import * as contract from '#contract/orders'
import { endLiveVisits } from './endVisits'
import { orderMove } from './orderMove'

export default orderMove(contract.recallOrder, 'recall', async ({ tx, order, now, details }) => {
  details.taken = await endLiveVisits(tx, order.id, now)
  return {}
})
