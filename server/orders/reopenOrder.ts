import * as contract from '#contract/orders'
import { orderMove } from './orderMove'

export default orderMove(contract.reopenOrder, 'reopen', async () => ({ finishedAt: null, closedAt: null, toldStanding: 'none' }))
