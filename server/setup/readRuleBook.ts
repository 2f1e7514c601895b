import * as contract from '#contract/setup'
import { query } from '#server/kit'
import { readRuleBookSheet } from './ruleBookSheet'

export default query(contract.readRuleBook, ({ db, input }) => readRuleBookSheet(db, input.siteId))
