import * as contract from '#contract/orders'
import { orderMove } from './orderMove'

export default orderMove(contract.discardOrder, 'discard', async ({ now }) => ({ discardedAt: now }))
