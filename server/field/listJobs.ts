import { and, asc, eq, gte, inArray, isNotNull, lt, ne, or } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/field'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { waysOnDays } from '#core/field'
import { SEEN_IN_FIELD } from '#core/orders'
import { bringOf } from '#server/jobsheets'
import { query } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { orders, places, sites, stints, technicians, visits } from '../tables'
import { windowOf } from '#server/orders'
import { placeAmong, placesOn } from '#server/places'
import { waysBetween } from '#server/travel'
import { jobRow } from './jobSheet'

export default query(contract.listJobs, async ({ db, who, input, now }) => {
  const [site] = await db.select({ zone: sites.zone }).from(sites).where(eq(sites.id, who.homeSiteId!))
  const today = DateTime.fromJSDate(now, { zone: site!.zone }).startOf('day')
  const range = input.range ?? 'today'
  if (input.day) {
    const day = DateTime.fromISO(input.day, { zone: site!.zone })
    return { rows: await jobsOf(db, who, site!.zone, between(day, day.plus({ days: 1 }))), zone: site!.zone, next: [] }
  }
  const [from, to] = {
    today: [today, today.plus({ days: 1 })],
    week: [today.startOf('week'), today.startOf('week').plus({ weeks: 1 })],
    month: [today.minus({ months: 1 }), today.plus({ days: 1 })],
  }[range] as [DateTime, DateTime]
  const rows = await jobsOf(
    db,
    who,
    site!.zone,
    // What is still open from before stays on the list until it is left.
    or(between(from, to), and(inArray(visits.state, LIVE_VISIT_STATES), lt(visits.plannedStart, to.toJSDate())))!,
  )
  const isToDo = rows.some((row) => row.visitState !== 'ended')
  return { rows, zone: site!.zone, next: range === 'today' && !isToDo ? await nextDay(db, who, to) : [] }
})

const between = (from: DateTime, to: DateTime) => and(gte(visits.plannedStart, from.toJSDate()), lt(visits.plannedStart, to.toJSDate()))!

/** The jobs of the first day from then on that has any. */
async function nextDay(db: Reader, who: Asker, from: DateTime) {
  const zone = from.zoneName!
  const [first] = await jobsOf(db, who, zone, gte(visits.plannedStart, from.toJSDate()), 1)
  if (!first) return []
  const day = DateTime.fromJSDate(new Date(first.plannedStart), { zone }).startOf('day')
  return jobsOf(db, who, zone, between(day, day.plus({ days: 1 })))
}

export async function jobsOf(db: Reader, who: Asker, zone: string, when: SQL, most = 200) {
  const rows = await db
    .select({ visit: visits, order: orders, place: places, running: stints.kind })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(stints, and(eq(stints.visitId, visits.id), isNotNull(stints.runningTechnicianId)))
    .where(
      and(
        eq(visits.technicianId, who.technicianId ?? -1),
        ne(visits.state, 'recalled'),
        or(eq(visits.state, 'ended'), inArray(orders.state, [...SEEN_IN_FIELD])),
        when,
      ),
    )
    .orderBy(asc(visits.plannedStart), asc(visits.id))
    .limit(most)
  const [bring, onPaths, [home]] = await Promise.all([
    bringOf(db, [...new Set(rows.map(({ order }) => order.id))]),
    placesOn(db, rows.map(({ place }) => place?.path ?? '').join('')),
    db
      .select({ path: places.path })
      .from(technicians)
      .leftJoin(places, eq(places.id, technicians.homePlaceId))
      .where(eq(technicians.id, who.technicianId ?? -1)),
  ])
  const way = await waysBetween(db, [...rows.map(({ place }) => place?.path ?? null), home?.path ?? null])
  const dayOf = (at: Date) => DateTime.fromJSDate(at, { zone }).toISODate()!
  const wayTo = waysOnDays(
    rows.map(({ visit, place }) => ({ day: dayOf(visit.plannedStart), path: place?.path ?? null })),
    home?.path ?? null,
    way,
  )
  return rows.map(({ visit, order, place, running }, index) => ({
    ...jobRow(visit, order, place, bring.get(order.id)!),
    running,
    within: place ? (placeAmong(onPath(onPaths, place.path), place.id)?.within ?? null) : null,
    window: windowOf(order),
    wayMinutes: wayTo[index]!,
  }))
}

const onPath = (all: Awaited<ReturnType<typeof placesOn>>, path: string) => {
  const ids = path.split('/').filter(Boolean).map(Number)
  return ids.flatMap((id) => all.find((one) => one.id === id) ?? [])
}
