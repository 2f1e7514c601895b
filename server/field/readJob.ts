import * as contract from '#contract/field'
import { query } from '#server/kit'
import { readJobSheet } from './jobSheet'

export default query(contract.readJob, ({ db, who, input }) => readJobSheet(db, who, input.visitId))
