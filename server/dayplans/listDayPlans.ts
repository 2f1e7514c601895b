import { and, desc, eq, gt } from 'drizzle-orm'
import * as contract from '#contract/dayplans'
import { mySite, query } from '#server/kit'
import { dayPlans } from '../tables'

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
  return { rows: rows.map(({ ask, taken, ...row }) => ({ ...row, repair: ask.repair === true, taken: taken.length })) }
})
