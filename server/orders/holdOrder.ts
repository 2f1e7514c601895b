import * as contract from '#contract/orders'
import { orderMove } from './orderMove'
import { heldTarget } from './targetOf'

export default orderMove(contract.holdOrder, 'hold', async ({ tx, order, input, now }) => ({
  heldFrom: order.state,
  holdReason: input.holdReason,
  ...(await heldTarget(tx, order, input.holdReason, now)),
}))
