import * as contract from '#contract/people'
import { query } from '#server/kit'
import { readAccountsSheet } from './accountsSheet'

export default query(contract.readAccounts, ({ db, who }) => readAccountsSheet(db, who))
