import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { requestLines } from './requestLines'
import { askFrom, standpointOf } from './standpoint'

export default query(contract.listRequestLines, async ({ db, who, input, now }) =>
  requestLines(db, askFrom('requests', input.ask), await standpointOf(db, who, now), { after: input.after, limit: input.limit ?? 50 }),
)
