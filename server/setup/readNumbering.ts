import * as contract from '#contract/setup'
import { query } from '#server/kit'
import { readNumberingSheet } from './numberingSheet'

export default query(contract.readNumbering, ({ db, who }) => readNumberingSheet(db, who))
