import * as contract from '#contract/orders'
import { orderMove } from './orderMove'

export default orderMove(contract.closeOrder, 'close', async ({ now }) => ({ closedAt: now }))
