import * as contract from '#contract/own'
import { query } from '#server/kit'
import { ownFieldRows } from './ownFields'

export default query(contract.listOwnFields, async ({ db }) => ({ rows: await ownFieldRows(db) }))
