import * as contract from '#contract/setup'
import { query } from '#server/kit'
import { readRuleBookSheet } from './ruleBookSheet'
import { mustReach } from './reach'

export default query(contract.readRuleBook, ({ db, who, input }) => {
  mustReach(who, input.siteId)
  return readRuleBookSheet(db, input.siteId)
})
