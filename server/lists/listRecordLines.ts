import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { recordLines } from './recordLines'
import { askFrom, readerOf, standpointOf } from './standpoint'

export default query(contract.listRecordLines, async ({ db, who, input, now, service }) => {
  const ask = await askFrom(db, who, input.register, input.ask)
  return recordLines(readerOf(service, ask), input.register, ask, await standpointOf(db, who, now), { after: input.after, limit: input.limit ?? 50 })
})
