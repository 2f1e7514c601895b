import { and, asc, eq, gte, inArray, lt, ne, or } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/field'
import { SEEN_IN_FIELD } from '#core/orders'
import { query } from '#server/kit'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { orders, places, sites, visits } from '../tables'
import { jobRow } from './jobSheet'

export default query(contract.listJobs, async ({ db, who, input, now }) => {
  const [site] = await db.select({ zone: sites.zone }).from(sites).where(eq(sites.id, who.homeSiteId!))
  const today = DateTime.fromJSDate(now, { zone: site!.zone }).startOf('day')
  const [from, to] = {
    today: [today, today.plus({ days: 1 })],
    week: [today.startOf('week'), today.startOf('week').plus({ weeks: 1 })],
    month: [today.minus({ months: 1 }), today.plus({ days: 1 })],
  }[input.range ?? 'today'] as [DateTime, DateTime]
  const rows = await db
    .select({ visit: visits, order: orders, place: places })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(
      and(
        eq(visits.technicianId, who.technicianId ?? -1),
        ne(visits.state, 'recalled'),
        or(eq(visits.state, 'ended'), inArray(orders.state, [...SEEN_IN_FIELD])),
        // What is still open from before stays on the list until it is left.
        or(
          and(gte(visits.plannedStart, from.toJSDate()), lt(visits.plannedStart, to.toJSDate())),
          and(inArray(visits.state, LIVE_VISIT_STATES), lt(visits.plannedStart, to.toJSDate())),
        ),
      ),
    )
    .orderBy(asc(visits.plannedStart), asc(visits.id))
    .limit(200)
  return { rows: rows.map(({ visit, order, place }) => jobRow(visit, order, place)), zone: site!.zone }
})
