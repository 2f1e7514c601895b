import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/dayplans'
import { refuse } from '#core/kit'
import { command, mySite } from '#server/kit'
import { rulesOf } from '#server/orders'
import { dayPlans } from '../tables'
import { gatherPlan } from './gather'

/** Nobody keeps the plans of others waiting. Our own choice, no source. */
const MOST_WAITING = 3

export default command(contract.computeDayPlan, async ({ tx, who, input, now }) => {
  const site = await mySite(tx, who, input.siteId)
  const waiting = await tx
    .select({ id: dayPlans.id })
    .from(dayPlans)
    .where(and(eq(dayPlans.createdBy, who.accountId!), eq(dayPlans.state, 'waiting')))
  if (waiting.length >= MOST_WAITING)
    refuse('too_many', `${MOST_WAITING} of your plans are still looked for. Wait until one of them is there; none of them is lost.`)
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
