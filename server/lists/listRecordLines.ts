import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { recordLines } from './recordLines'
import { askedOf, readerOf } from './asked'

export default query(contract.listRecordLines, async ({ db, who, input, now, service }) => {
  const { ask, from } = await askedOf({ db, who, now }, input.register, input.ask)
  return recordLines(readerOf(service, ask), input.register, ask, from, { after: input.after, limit: input.limit ?? 50 })
})
