import * as contract from '#contract/orders'
import { recallVisits } from '#server/dispatch/records'
import { orderMove } from './orderMove'

export default orderMove(contract.recallOrder, 'recall', async ({ tx, order, now, details }) => {
  details.taken = await recallVisits(tx, order.id, now)
  return {}
})
