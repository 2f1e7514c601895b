import * as contract from '#contract/dayplans'
import { refuse } from '#core/kit'
import { command, mySite } from '#server/kit'
import { rulesOf } from '#server/orders'
import { dayPlans } from '../tables'
import { gatherPlan } from './gather'

export default command(contract.computeDayPlan, async ({ tx, who, input, now }) => {
  const site = await mySite(tx, who, input.siteId)
  const rules = await rulesOf(tx, site.id)
  const { first, last, ...given } = await gatherPlan(tx, site, input, rules.dayPlans, now)
  if (!given.problem.jobs.length)
    refuse('nothing', 'There is nothing to plan on these days: no work waits that could be dispatched, and none is planned that could be moved.')
  if (!given.problem.duties.length) refuse('nobody', 'Nobody is at work on what is left of these days.')
  const [{ id }] = (await tx
    .insert(dayPlans)
    .values({
      siteId: site.id,
      createdBy: who.accountId!,
      createdByName: who.name,
      createdAt: now,
      first,
      last,
      ask: input,
      given,
      state: 'waiting',
      tryAt: now,
      taken: [],
    })
    .$returningId()) as [{ id: number }]
  return { id }
})
