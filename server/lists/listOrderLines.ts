import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { orderLines } from './orderLines'
import { askedOf, readerOf } from './asked'

export default query(contract.listOrderLines, async ({ db, who, input, now, service }) => {
  const { ask, from } = await askedOf({ db, who, now }, 'orders', input.ask)
  return orderLines(readerOf(service, ask), ask, from, { after: input.after, limit: input.limit ?? 50 })
})
