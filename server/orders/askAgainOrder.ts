import * as contract from '#contract/orders'
import { askForApproval } from './asks'
import { orderMove } from './orderMove'

/** What it has grown to is the estimate from now on, and everybody who would have to agree to that is asked. */
export default orderMove(contract.askAgainOrder, 'askAgain', async ({ tx, who, now, order, facts }) => {
  const estimateMinor = order.outgrownMinor
  await askForApproval(tx, who, now, { ...order, estimateMinor }, { ...facts, estimateMinor })
  return { estimateMinor, outgrownMinor: null, submittedBy: who.accountId }
})
