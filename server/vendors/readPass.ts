import * as contract from '#contract/vendors'
import { query } from '#server/kit'
import { readPassSheet } from './passSheet'

export default query(contract.readPass, ({ db, input, now }) => readPassSheet(db, input.token, now))
