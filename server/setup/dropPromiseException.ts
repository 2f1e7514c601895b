import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { command, notFound } from '#server/kit'
import { targetExceptions } from '../tables'
import { readRuleBookSheet } from './ruleBookSheet'
import { mustReach } from './reach'

export default command(contract.dropPromiseException, async ({ tx, who, input, tell }) => {
  await mustReach(tx, who, input.siteId)
  const mine = and(eq(targetExceptions.id, input.id), eq(targetExceptions.siteId, input.siteId))
  const [before] = await tx.select().from(targetExceptions).where(mine).for('update')
  if (!before) throw notFound('promise')
  await tx.delete(targetExceptions).where(mine)
  await tell({ kind: 'setup.promise', siteId: input.siteId, details: { dropped: before } })
  return readRuleBookSheet(tx, input.siteId)
})
