import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { command, notFound } from '#server/kit'
import { categories, sites, targetExceptions } from '../tables'
import { readRuleBookSheet } from './ruleBookSheet'

export default command(contract.savePromiseException, async ({ tx, input, tell }) => {
  const [site] = await tx.select({ id: sites.id }).from(sites).where(eq(sites.id, input.siteId))
  if (!site) throw notFound('site')
  const [category] = await tx.select({ name: categories.name }).from(categories).where(eq(categories.id, input.categoryId))
  if (!category) refuse('category_unknown', 'Choose a category from the list.', 'categoryId')
  const { clock, responseMinutes, completionMinutes } = input
  await tx.insert(targetExceptions).values(input).onDuplicateKeyUpdate({ set: { clock, responseMinutes, completionMinutes } })
  await tell({
    kind: 'setup.promise',
    siteId: input.siteId,
    details: { category: category.name, priority: input.priority, clock, responseMinutes, completionMinutes },
  })
  return readRuleBookSheet(tx, input.siteId)
})
