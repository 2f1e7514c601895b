import * as contract from '#contract/setup'
import { query } from '#server/kit'
import { readSetupSheet } from './setupSheet'

export default query(contract.readSetup, ({ db, who }) => readSetupSheet(db, who))
