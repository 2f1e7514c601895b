import * as contract from '#contract/approvals'
import { query } from '#server/kit'
import { readUnableSheet } from './unable'

export default query(contract.readUnable, ({ db, who }) => readUnableSheet(db, who))
