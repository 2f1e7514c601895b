import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { command, mustKnow, mustReach } from '#server/kit'
import { setPromiseException } from '#server/orders'
import { categories } from '../tables'
import { readRuleBookSheet } from './ruleBookSheet'

export default command(contract.savePromiseException, async ({ tx, who, input, tell }) => {
  await mustReach(tx, who, input.siteId)
  await mustKnow(tx, { siteId: input.siteId, who }, { categoryId: ['category', input.categoryId] })
  const [category] = await tx.select({ name: categories.name }).from(categories).where(eq(categories.id, input.categoryId))
  const { clock, responseMinutes, completionMinutes } = input
  await setPromiseException(tx, input)
  await tell({
    kind: 'setup.promise',
    siteId: input.siteId,
    details: { category: category!.name, priority: input.priority, clock, responseMinutes, completionMinutes },
  })
  return readRuleBookSheet(tx, input.siteId)
})
