import * as contract from '#contract/requests'
import { query } from '#server/kit'
import { timelineOfRequest } from '#server/orders'
import { seenRequest } from './seenRequest'

export default query(contract.readRequestTimeline, async ({ db, who, input }) => {
  const { id } = await seenRequest(db, who, input.id)
  return { entries: await timelineOfRequest(db, id) }
})
