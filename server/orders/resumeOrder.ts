import * as contract from '#contract/orders'
import { orderMove } from './orderMove'
import { resumedTarget } from './targetOf'

export default orderMove(contract.resumeOrder, 'resume', async ({ tx, order, now }) => ({
  heldFrom: null,
  holdReason: null,
  ...(await resumedTarget(tx, order, now)),
  ...(order.clockStoppedAt ? { toldStanding: 'none' as const } : {}),
}))
