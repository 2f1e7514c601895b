import * as contract from '#contract/setup'
import { query } from '#server/kit'
import { readRuleBookSheet } from './ruleBookSheet'
import { mustReach } from './reach'

export default query(contract.readRuleBook, async ({ db, who, input }) => {
  await mustReach(db, who, input.siteId)
  return readRuleBookSheet(db, input.siteId)
})
