import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { requestLines } from './requestLines'
import { askFrom, readerOf, standpointOf } from './standpoint'

export default query(contract.listRequestLines, async ({ db, who, input, now, service }) => {
  const ask = await askFrom(db, who, 'requests', input.ask)
  return requestLines(readerOf(service, ask), ask, await standpointOf(db, who, now), { after: input.after, limit: input.limit ?? 50 })
})
