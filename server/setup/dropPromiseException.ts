import * as contract from '#contract/setup'
import { command, mustReach, notFound } from '#server/kit'
import { dropException } from '#server/orders'
import { readRuleBookSheet } from './ruleBookSheet'

export default command(contract.dropPromiseException, async ({ tx, who, input, tell }) => {
  await mustReach(tx, who, input.siteId)
  const before = await dropException(tx, input.siteId, input.id)
  if (!before) throw notFound('promise')
  await tell({ kind: 'setup.promise', siteId: input.siteId, details: { dropped: before } })
  return readRuleBookSheet(tx, input.siteId)
})
