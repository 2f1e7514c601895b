import * as contract from '#contract/orders'
import { askForApproval } from './asks'
import { orderMove } from './orderMove'

export default orderMove(contract.submitOrder, 'submit', async ({ tx, who, now, order, facts }) => {
  await askForApproval(tx, who, now, order, facts)
  return { submittedBy: who.accountId, outgrownMinor: null }
})
