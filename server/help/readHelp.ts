import * as contract from '#contract/help'
import { query } from '#server/kit'
import { readHelpSheet } from './helpSheet'

export default query(contract.readHelp, ({ db, who }) => readHelpSheet(db, who))
