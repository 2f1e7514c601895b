import { and, desc, eq, gt, inArray } from 'drizzle-orm'
import * as contract from '#contract/dayplans'
import { mySite, query } from '#server/kit'
import type { Reader } from '#server/kit'
import { dayPlans } from '../tables'
import { standingOf } from './standing'

const DAY_MS = 86_400_000
const MOST = 8

/** What was computed lately, so that a plan is found again after its panel was closed, by whoever asked for it. */
export default query(contract.listDayPlans, async ({ db, who, input, now }) => {
  const site = await mySite(db, who, input.siteId)
  const rows = await db
    .select({
      id: dayPlans.id,
      first: dayPlans.first,
      last: dayPlans.last,
      createdAt: dayPlans.createdAt,
      createdBy: dayPlans.createdByName,
      state: dayPlans.state,
      ask: dayPlans.ask,
      taken: dayPlans.taken,
    })
    .from(dayPlans)
    .where(and(eq(dayPlans.siteId, site.id), gt(dayPlans.createdAt, new Date(now.getTime() - DAY_MS))))
    .orderBy(desc(dayPlans.id))
    .limit(MOST)
  const standing = await countStanding(
    db,
    rows.flatMap(({ id, taken }) => (taken.length ? [id] : [])),
  )
  return { rows: rows.map(({ ask, taken: _taken, ...row }) => ({ ...row, repair: ask.repair === true, taken: standing.get(row.id) ?? 0 })) }
})

/** How many moves of each plan are made and were not taken back. What was computed is read of these alone: it is large. */
async function countStanding(db: Reader, ids: number[]): Promise<Map<number, number>> {
  if (!ids.length) return new Map()
  const plans = await db
    .select({ id: dayPlans.id, made: dayPlans.made, given: dayPlans.given, taken: dayPlans.taken, createdAt: dayPlans.createdAt })
    .from(dayPlans)
    .where(inArray(dayPlans.id, ids))
  return new Map(await Promise.all(plans.map(async (plan) => [plan.id, (await standingOf(db, plan)).taken.length] as const)))
}
