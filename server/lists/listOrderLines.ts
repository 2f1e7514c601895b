import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { orderLines } from './orderLines'
import { askFrom, readerOf, standpointOf } from './standpoint'

export default query(contract.listOrderLines, async ({ db, who, input, now, service }) => {
  const ask = await askFrom(db, who, 'orders', input.ask)
  return orderLines(readerOf(service, ask), ask, await standpointOf(db, who, now), { after: input.after, limit: input.limit ?? 50 })
})
