import * as contract from '#contract/setup'
import { mustReach, query } from '#server/kit'
import { readRuleBookSheet } from './ruleBookSheet'

export default query(contract.readRuleBook, async ({ db, who, input }) => {
  await mustReach(db, who, input.siteId)
  return readRuleBookSheet(db, input.siteId)
})
