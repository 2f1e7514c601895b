import * as contract from '#contract/own'
import { query } from '#server/kit'
import { ownRecord, ownSheet } from './ownSheet'

export default query(contract.readOwn, async ({ db, who, input: { kind, id } }) => {
  const { whyNot } = await ownRecord(db, who, kind, id)
  return ownSheet(db, kind, id, whyNot)
})
