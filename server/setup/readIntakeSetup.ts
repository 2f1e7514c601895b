import * as contract from '#contract/setup'
import { query } from '#server/kit'
import { readIntakeSheet } from './intakeSetup'

export default query(contract.readIntakeSetup, ({ db, who }) => readIntakeSheet(db, who))
