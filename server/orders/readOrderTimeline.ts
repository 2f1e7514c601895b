import * as contract from '#contract/orders'
import { query } from '#server/kit'
import { seenOrder } from './seenOrder'
import { timelineOfOrder } from './timelineOf'

export default query(contract.readOrderTimeline, async ({ db, who, input }) => {
  const { id } = await seenOrder(db, who, input.id)
  return { entries: await timelineOfOrder(db, id) }
})
