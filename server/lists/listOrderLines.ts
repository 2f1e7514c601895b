import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { orderLines } from './orderLines'
import { askFrom, standpointOf } from './standpoint'

export default query(contract.listOrderLines, async ({ db, who, input, now }) =>
  orderLines(db, askFrom('orders', input.ask), await standpointOf(db, who, now), { after: input.after, limit: input.limit ?? 50 }),
)
