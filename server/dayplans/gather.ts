import { and, asc, desc, eq, gt, gte, inArray, isNotNull, isNull, lt, lte, ne, notExists, or, sql } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { DayPlanAsk } from '#contract/dayplans'
import type { LabourLine } from '#core/methods'
import { KNOWN_MONTHS, presenceOf, without } from '#core/board'
import type { Way } from '#core/travel'
import { PLAN_STEP_MINUTES, repairing } from '#core/dayplans'
import type { PlanBlock, PlanDuty, PlanJob, PlanWeights } from '#core/dayplans'
import { skillsLacking } from '#core/people'
import { refuse, workingMinutesBetween, workingStretches } from '#core/kit'
import type { WorkCalendar } from '#core/kit'
import { isToCome } from '#core/windows'
import { crewOf, daysFrom, firstDay, readyOf } from '#server/board'
import type { CrewMember } from '#server/board'
import { waysBetween } from '#server/travel'
import { liveVisit } from '#server/dispatch/records'
import type { Reader } from '#server/kit'
import { windowOf } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { orderPlans, orders, places, technicianRates, technicians, trades, visits } from '../tables'
import type { PlanGiven, PlannedOrder } from '../tables'

const MOST_WAITING = 2_000
/** Beyond the days planned, working time is known for as long: what is left undone is as late as if it began then. */
const AFTERWARDS_DAYS = 10
/** What weighs on its dispatch and nobody can plan away. */
const NOT_READY = new Set(['approval', 'outgrown', 'steps', 'missing', 'equipment', 'space'])

interface Site {
  id: number
  zone: string
  calendar: WorkCalendar
}
type VisitRow = typeof visits.$inferSelect
interface Found {
  order: OrderRecord
  path: string | null
  labour: LabourLine[] | null
}

/** Everything a plan of some days is computed from, as it stands at this moment. */
export async function gatherPlan(
  db: Reader,
  site: Site,
  ask: DayPlanAsk,
  weights: PlanWeights,
  now: Date,
): Promise<PlanGiven & { first: string; last: string }> {
  const days = daysFrom(firstDay(ask.first, now, site.zone), ask.days ?? 1)
  const [from, until] = [days[0]!.toJSDate(), days.at(-1)!.plus({ days: 1 }).toJSDate()]
  const everybody = await crewOf(db, site.id, days)
  if (ask.technicianIds?.some((id) => !everybody.some((one) => one.id === id))) refuse('not_here', 'Choose technicians of this site.', 'technicianIds')
  const crew = everybody.filter(({ id }) => !ask.technicianIds || ask.technicianIds.includes(id))
  const time = new PlanTime(from, now)
  const [homes, rates, planned, waiting] = await Promise.all([
    homesOf(db, crew),
    ratesOf(db, crew, now),
    visitsBetween(db, site.id, crew, from, until),
    waitingAt(db, site.id),
  ])

  const mine = planned.filter(({ visit }) => crew.some(({ id }) => id === visit.technicianId))
  const { movable, fixed } = sorted(mine, planned, site.id, ask, now, until)
  const ready = await readyOf(
    db,
    waiting.map(({ order }) => order),
    now,
  )
  const wanted = waiting.filter(({ order }) => !ask.orderIds || ask.orderIds.includes(order.id))
  const last = days.at(-1)!.toISODate()
  // What comes on a day that is known is there from the next one on.
  const inTheWay = ({ order }: Found) => (ready.get(order.id) ?? []).filter(({ code, after }) => NOT_READY.has(code) || (after && after >= last))
  const partsBy = ({ id }: OrderRecord) => {
    const comes = (ready.get(id) ?? [])
      .flatMap(({ after }) => after ?? [])
      .sort()
      .at(-1)
    return comes ? time.minute(DateTime.fromISO(comes, { zone: site.zone }).plus({ days: 1 }).toJSDate()) : 0
  }
  const open = wanted.filter((one) => !inTheWay(one).length)
  const known = await knownBy(
    db,
    [...open, ...movable.map(({ found }) => found)].map(({ order }) => order),
    crew,
    now,
  )
  const map = new PlaceMap()
  const jobOf = ({ order, path, labour }: Found, minutes: number, people: number, now_: PlanJob['now'], besides: readonly number[]): PlanJob => {
    const window = windowOf(order)
    const target = order.completionDueAt
    const { skills } = presenceOf(labour, order.tradeId)
    // Until the last of the days, for it may be planned on any of them.
    const can = ({ trades: own, skills: held }: CrewMember) =>
      (order.tradeId === null || own.some(({ id }) => id === order.tradeId)) && !skillsLacking(held, skills, last).length
    const always = order.targetClock === 'continuous'
    return {
      place: map.at(path),
      minutes: Math.max(PLAN_STEP_MINUTES, minutes),
      people,
      priority: order.priority,
      able: crew.flatMap((one, t) => (can(one) || besides.includes(t) ? [t] : [])),
      earliest: Math.max(time.notBefore, partsBy(order)),
      window: window && isToCome(window, now) ? { from: time.minute(window.from), until: time.minute(window.until) } : null,
      target: target && time.minute(target),
      always,
      lateAtOrigin:
        target && target < from ? Math.round(always ? (from.getTime() - target.getTime()) / 60_000 : workingMinutesBetween(target, from, site.calendar)) : 0,
      known: crew.flatMap(({ id }, t) => (order.assetId !== null && known.has(`${order.assetId}:${id}`) ? [t] : [])),
      now: now_,
    }
  }
  const indexOf = (technicianId: number | null) => crew.findIndex(({ id }) => id === technicianId)
  const jobs: PlanJob[] = []
  const given: PlannedOrder[] = []
  for (const { found, group } of movable) {
    const [one] = group
    const technicianIndexes = group.map(({ technicianId }) => indexOf(technicianId))
    const minutes = Math.round((one!.plannedEnd.getTime() - one!.plannedStart.getTime()) / 60_000)
    const planned_ = { start: time.minute(one!.plannedStart), technicians: technicianIndexes, promised: found.order.windowFrom !== null }
    jobs.push(jobOf(found, minutes, group.length, planned_, technicianIndexes))
    given.push({ orderId: found.order.id, visits: group.map(({ id, version, technicianId }) => ({ id, version, technicianId: technicianId! })) })
  }
  for (const found of open) {
    const { minutes, people } = presenceOf(found.labour, found.order.tradeId)
    jobs.push(jobOf(found, minutes, people, null, []))
    given.push({ orderId: found.order.id, visits: [] })
  }
  const duties = crew.flatMap((member, technician) => dutiesOf(member, technician, homes, fixed, time, map, ask.overtimeMinutes ?? 0))
  const after = workingStretches(until, DateTime.fromJSDate(until).plus({ days: AFTERWARDS_DAYS }).toJSDate(), site.calendar)
  return {
    first: days[0]!.toISODate(),
    last,
    origin: from.toISOString(),
    orders: given,
    technicianIds: crew.map(({ id }) => id),
    notReady: wanted.filter((one) => inTheWay(one).length).map((one) => ({ orderId: one.order.id, why: inTheWay(one)[0]!.sentence })),
    problem: {
      jobs,
      technicians: crew.map(({ id }) => rates.get(id) ?? { normalPerHour: 0, overtimePerHour: 0 }),
      duties,
      travel: map.travel(await waysBetween(db, map.known)),
      working: workingStretches(from, DateTime.fromJSDate(until).plus({ days: AFTERWARDS_DAYS }).toJSDate(), site.calendar).map((one) => ({
        from: time.minute(one.from),
        until: time.minute(one.until),
      })),
      afterwards: time.minute(after[0]?.from ?? until),
      notBefore: time.notBefore,
      weights: ask.repair ? repairing(weights) : weights,
    },
  }
}

/** Instants as minutes from the first day’s midnight. */
class PlanTime {
  readonly notBefore: number
  constructor(
    readonly origin: Date,
    now: Date,
  ) {
    this.notBefore = Math.max(0, Math.ceil((now.getTime() - origin.getTime()) / 60_000 / PLAN_STEP_MINUTES) * PLAN_STEP_MINUTES)
  }
  minute(at: Date): number {
    return Math.round((at.getTime() - this.origin.getTime()) / 60_000)
  }
}
/** Places by number, with the ways between them. */
class PlaceMap {
  private readonly paths: string[] = []
  get known(): readonly string[] {
    return this.paths
  }
  at(path: string | null): number | null {
    if (path === null) return null
    const known = this.paths.indexOf(path)
    return known === -1 ? this.paths.push(path) - 1 : known
  }
  travel(way: Way): number[][] {
    return this.paths.map((from) => this.paths.map((to) => way(from, to)))
  }
}

/**
 * Visits that may be moved, those of several people at the same time together; and those that stay as they are: what has begun or
 * should have, what goes on beyond the days planned, what is not asked about, and what somebody makes who is not.
 */
function sorted(mine: readonly (Found & { visit: VisitRow })[], all: readonly { visit: VisitRow }[], siteId: number, ask: DayPlanAsk, now: Date, until: Date) {
  const together = new Map<string, (Found & { visit: VisitRow })[]>()
  const fixed: (Found & { visit: VisitRow })[] = []
  for (const one of mine) {
    const { visit, order } = one
    const stands = visit.state !== 'planned' || (visit.plannedStart <= now && visit.plannedEnd > now) || visit.plannedEnd > until
    if (stands || order.siteId !== siteId || (ask.orderIds && !ask.orderIds.includes(order.id))) fixed.push(one)
    else {
      const key = `${order.id} ${visit.plannedStart.getTime()} ${visit.plannedEnd.getTime()}`
      together.set(key, [...(together.get(key) ?? []), one])
    }
  }
  const movable: { found: Found; group: VisitRow[] }[] = []
  for (const group of together.values()) {
    const { order, path, labour, visit } = group[0]!
    const others = all.filter((one) => one.visit.orderId === order.id && one.visit.plannedStart.getTime() === visit.plannedStart.getTime())
    if (others.length > group.length) fixed.push(...group)
    else movable.push({ found: { order, path, labour }, group: group.map((one) => one.visit) })
  }
  return { movable, fixed }
}

function dutiesOf(
  member: CrewMember,
  technician: number,
  homes: Map<number, string | null>,
  fixed: readonly (Found & { visit: VisitRow })[],
  time: PlanTime,
  map: PlaceMap,
  overtime: number,
): PlanDuty[] {
  const home = map.at(homes.get(member.id) ?? null)
  const stays = fixed
    .filter(({ visit }) => visit.technicianId === member.id)
    .map(({ visit, path }): PlanBlock => {
      const from = time.minute(visit.startedAt ?? visit.plannedStart)
      return { from, until: Math.max(time.minute(visit.plannedEnd), visit.state === 'on_site' ? time.notBefore : 0), place: map.at(path) }
    })
  return member.shifts.flatMap((shift) => {
    const parts = without(shift, member.away)
    return parts.flatMap((part, n): PlanDuty[] => {
      const from = Math.max(time.minute(part.from), time.notBefore)
      const until = time.minute(part.until)
      if (from >= until) return []
      return [{ technician, from, until, overtime: n === parts.length - 1 ? overtime : 0, start: home, end: home, blocks: apart(stays, from, until) }]
    })
  })
}
/** Those that lie in a duty, cut off where it begins, those over each other as one. */
function apart(stays: readonly PlanBlock[], from: number, until: number): PlanBlock[] {
  const found: PlanBlock[] = []
  for (const one of [...stays].sort((a, b) => a.from - b.from)) {
    if (one.until <= from || one.from >= until) continue
    const begins = Math.max(one.from, from)
    const last = found.at(-1)
    if (last && begins < last.until) last.until = Math.max(last.until, one.until)
    else found.push({ ...one, from: begins })
  }
  return found
}
async function homesOf(db: Reader, crew: readonly CrewMember[]): Promise<Map<number, string | null>> {
  if (!crew.length) return new Map()
  const rows = await db
    .select({ id: technicians.id, path: places.path })
    .from(technicians)
    .leftJoin(places, eq(places.id, technicians.homePlaceId))
    .where(
      inArray(
        technicians.id,
        crew.map(({ id }) => id),
      ),
    )
  return new Map(rows.map(({ id, path }) => [id, path]))
}
async function ratesOf(db: Reader, crew: readonly CrewMember[], now: Date) {
  if (!crew.length) return new Map<number, { normalPerHour: number; overtimePerHour: number }>()
  const rows = await db
    .select()
    .from(technicianRates)
    .where(
      and(
        inArray(
          technicianRates.technicianId,
          crew.map(({ id }) => id),
        ),
        lte(technicianRates.fromAt, now),
      ),
    )
    .orderBy(asc(technicianRates.fromAt))
  return new Map(rows.map(({ technicianId, normalPerHour, overtimePerHour }) => [technicianId, { normalPerHour, overtimePerHour }]))
}
/** Of the site, and what its technicians do elsewhere. */
const visitsBetween = (db: Reader, siteId: number, crew: readonly CrewMember[], from: Date, until: Date) =>
  db
    .select({ visit: visits, order: orders, path: places.path, labour: orderPlans.labour })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .leftJoin(orderPlans, eq(orderPlans.orderId, orders.id))
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(
      and(
        or(
          eq(orders.siteId, siteId),
          crew.length
            ? inArray(
                visits.technicianId,
                crew.map(({ id }) => id),
              )
            : undefined,
        ),
        liveVisit,
        ne(orders.state, 'on_hold'),
        lt(visits.plannedStart, until),
        gt(visits.plannedEnd, from),
      ),
    )
    .orderBy(asc(visits.plannedStart), asc(visits.id))
function waitingAt(db: Reader, siteId: number) {
  const live = db
    .select({ one: sql`1` })
    .from(visits)
    .where(and(eq(visits.orderId, orders.id), liveVisit))
  return db
    .select({ order: orders, path: places.path, trade: trades.name, labour: orderPlans.labour })
    .from(orders)
    .leftJoin(orderPlans, eq(orderPlans.orderId, orders.id))
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(trades, eq(trades.id, orders.tradeId))
    .where(and(eq(orders.siteId, siteId), eq(orders.state, 'ready'), isNull(orders.discardedAt), notExists(live)))
    .orderBy(asc(orders.completionDueAt), desc(orders.id))
    .limit(MOST_WAITING)
}
async function knownBy(db: Reader, of: readonly OrderRecord[], crew: readonly CrewMember[], now: Date): Promise<Set<string>> {
  const assetIds = [...new Set(of.flatMap(({ assetId }) => assetId ?? []))]
  if (!assetIds.length || !crew.length) return new Set()
  const since = DateTime.fromJSDate(now).minus({ months: KNOWN_MONTHS }).toJSDate()
  const rows = await db
    .selectDistinct({ assetId: orders.assetId, technicianId: visits.technicianId })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(and(inArray(orders.assetId, assetIds), isNotNull(visits.technicianId), eq(visits.state, 'ended'), gte(visits.endedAt, since)))
  return new Set(rows.map(({ assetId, technicianId }) => `${assetId}:${technicianId}`))
}
