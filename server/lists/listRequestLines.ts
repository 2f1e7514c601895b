import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { requestLines } from './requestLines'
import { askedOf, readerOf } from './asked'

export default query(contract.listRequestLines, async ({ db, who, input, now, service }) => {
  const { ask, from } = await askedOf({ db, who, now }, 'requests', input.ask)
  return requestLines(readerOf(service, ask), ask, from, { after: input.after, limit: input.limit ?? 50 })
})
