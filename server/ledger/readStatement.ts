import * as contract from '#contract/ledger'
import { query } from '#server/kit'
import { readStatement } from './statement'

export default query(contract.readStatement, ({ db, who, input }) => readStatement(db, who, input.payerId, input.month))
