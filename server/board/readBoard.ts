import { and, asc, eq, inArray, isNotNull, isNull, lt, ne, notExists, or, sql } from 'drizzle-orm'
import * as contract from '#contract/board'
import type { BoardVisit } from '#contract/board'
import { hoursShown, presenceOf } from '#core/board'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { keepsTo } from '#core/windows'
import { mySite, query } from '#server/kit'
import type { Outgoing, Reader } from '#server/kit'
import { gaugeTarget, TARGET_COLUMNS, windowOf } from '#server/orders'
import { wayFacts } from '#server/travel'
import { orderPlans, orders, places, trades, vendors, visits } from '../tables'
import { crewOf } from './crewOf'
import { daysFrom, firstDay } from './days'
import { readyOf } from './readyOf'

const MOST_WAITING = 200

/** By when work is due: while a hold stops its clock, what was left of it then is left still. */
const dueBy = (now: Date) => sql`case when ${orders.clockStoppedAt} < ${orders.completionDueAt}
  then timestampadd(second, timestampdiff(second, ${orders.clockStoppedAt}, ${now}), ${orders.completionDueAt})
  else ${orders.completionDueAt} end`

/** Of a visit and of its order, what is drawn: the whole records of a week are three times as much to read. */
const VISIT = {
  id: visits.id,
  version: visits.version,
  orderId: visits.orderId,
  technicianId: visits.technicianId,
  vendorId: visits.vendorId,
  kind: visits.kind,
  state: visits.state,
  answer: visits.answer,
  answerNote: visits.answerNote,
  proposedStart: visits.proposedStart,
  proposedEnd: visits.proposedEnd,
  plannedStart: visits.plannedStart,
  plannedEnd: visits.plannedEnd,
  startedAt: visits.startedAt,
  endedAt: visits.endedAt,
}
const ABOUT = {
  id: orders.id,
  version: orders.version,
  number: orders.number,
  summary: orders.summary,
  tradeId: orders.tradeId,
  priority: orders.priority,
  windowFrom: orders.windowFrom,
  windowUntil: orders.windowUntil,
  windowWith: orders.windowWith,
  ...TARGET_COLUMNS,
}

export default query(contract.readBoard, async ({ db, who, input, now }) => {
  const site = await mySite(db, who, input.siteId)
  const { zone } = site
  const days = input.days ?? 1
  const start = firstDay(input.first, now, zone)
  const end = start.plus({ days })
  const [from, until] = [start.toJSDate(), end.toJSDate()]
  const shown = daysFrom(start, days)
  const dayNames = shown.map((day) => day.toISODate())
  // Nobody is planned to go: no visit lives on it.
  const live = db
    .select({ one: sql`1` })
    .from(visits)
    .where(and(eq(visits.orderId, orders.id), inArray(visits.state, LIVE_VISIT_STATES)))
  const [crew, visitRows, waiting] = await Promise.all([
    crewOf(db, site.id, shown),
    db
      .select({ visit: VISIT, vendor: vendors.name })
      .from(visits)
      .innerJoin(orders, eq(orders.id, visits.orderId))
      .leftJoin(vendors, eq(vendors.id, visits.vendorId))
      .where(
        and(
          eq(orders.siteId, site.id),
          ne(visits.state, 'recalled'),
          // Nobody goes to what is on hold, whatever was planned.
          or(ne(orders.state, 'on_hold'), ne(visits.state, 'planned')),
          lt(visits.plannedStart, until),
          // What runs is drawn up to now, however long ago it should have ended.
          sql`(${visits.plannedEnd} > ${from} or ${visits.endedAt} > ${from} or (${and(isNotNull(visits.startedAt), isNull(visits.endedAt))}))`,
        ),
      )
      .orderBy(asc(visits.plannedStart), asc(visits.id)),
    db
      .select({ order: orders, placeCode: places.code, path: places.path, trade: trades.name, labour: orderPlans.labour })
      .from(orders)
      .leftJoin(orderPlans, eq(orderPlans.orderId, orders.id))
      .leftJoin(places, eq(places.id, orders.placeId))
      .leftJoin(trades, eq(trades.id, orders.tradeId))
      .where(
        and(
          eq(orders.siteId, site.id),
          inArray(orders.state, ['ready', 'on_hold']),
          isNull(orders.discardedAt),
          or(eq(orders.state, 'on_hold'), notExists(live)),
        ),
      )
      .orderBy(asc(dueBy(now)), asc(orders.id))
      .limit(MOST_WAITING),
  ])
  // Read once, however many visits there are to it.
  const about = await ordersOf(db, [...new Set(visitRows.map(({ visit }) => visit.orderId))])
  const drawn = visitRows.map(({ visit, vendor }) => {
    const { order, placeCode, path, trade, labour } = about.get(visit.orderId)!
    const window = windowOf(order)
    const begins = visit.startedAt ?? visit.plannedStart
    const planned = visit.startedAt && now > visit.plannedEnd ? now : visit.plannedEnd
    const ends = new Date(Math.max((visit.endedAt ?? planned).getTime(), begins.getTime() + 60_000))
    const one: Outgoing<BoardVisit> = {
      id: visit.id,
      version: visit.version,
      orderId: order.id,
      orderVersion: order.version,
      number: order.number,
      summary: order.summary,
      placeCode,
      path,
      tradeId: order.tradeId,
      trade,
      skills: presenceOf(labour, order.tradeId).skills,
      priority: order.priority,
      kind: visit.kind,
      state: visit.state as BoardVisit['state'],
      answer: visit.answer,
      proposed: visit.proposedStart && visit.proposedEnd ? { start: visit.proposedStart, end: visit.proposedEnd, note: visit.answerNote } : null,
      from: begins,
      until: ends,
      window,
      outside: window !== null && !keepsTo(window, visit.plannedStart),
      target: gaugeTarget(order),
      dueAt: order.completionDueAt,
    }
    return { one, span: { from: begins, until: ends }, technicianId: visit.technicianId, vendorId: visit.vendorId, vendor }
  })
  const byPerson = new Map<number, Outgoing<BoardVisit>[]>()
  for (const { technicianId, one } of drawn) if (technicianId !== null) byPerson.set(technicianId, [...(byPerson.get(technicianId) ?? []), one])
  const persons = crew.map((one) => ({
    ...one,
    trades: one.trades.map(({ name }) => name),
    tradeIds: one.trades.map(({ id }) => id),
    visits: byPerson.get(one.id) ?? [],
  }))
  const vendorIds = [...new Set(drawn.flatMap((row) => row.vendorId ?? []))]
  const ready = await readyOf(
    db,
    waiting.map(({ order }) => order),
    now,
  )
  const ways = await wayFacts(db, [...[...about.values()].map(({ path }) => path), ...waiting.map(({ path }) => path)])
  const inDays = (span: { from: Date; until: Date }) => ({ from: span.from < from ? from : span.from, until: span.until > until ? until : span.until })
  return {
    zone,
    first: dayNames[0]!,
    last: dayNames.at(-1)!,
    days,
    hours: hoursShown([...persons.flatMap((one) => one.shifts), ...drawn.map(({ span }) => inDays(span))], zone),
    now,
    ways,
    people: persons,
    vendors: vendorIds.map((id) => ({
      id,
      name: drawn.find((row) => row.vendorId === id)!.vendor ?? '',
      visits: drawn.filter((row) => row.vendorId === id).map((row) => row.one),
    })),
    waiting: waiting.map(({ order, placeCode, path, trade, labour }) => ({
      id: order.id,
      version: order.version,
      number: order.number,
      summary: order.summary,
      state: order.state,
      holdReason: order.holdReason,
      placeCode,
      path,
      tradeId: order.tradeId,
      trade,
      ...presenceOf(labour, order.tradeId),
      priority: order.priority,
      target: gaugeTarget(order),
      dueAt: order.completionDueAt,
      window: windowOf(order),
      ready: ready.get(order.id) ?? [],
    })),
  }
})

/** Orders with what the Board says of them. */
async function ordersOf(db: Reader, ids: readonly number[]) {
  const rows = ids.length
    ? await db
        .select({ order: ABOUT, placeCode: places.code, path: places.path, trade: trades.name, labour: orderPlans.labour })
        .from(orders)
        .leftJoin(orderPlans, eq(orderPlans.orderId, orders.id))
        .leftJoin(places, eq(places.id, orders.placeId))
        .leftJoin(trades, eq(trades.id, orders.tradeId))
        .where(inArray(orders.id, [...ids]))
    : []
  return new Map(rows.map((row) => [row.order.id, row]))
}
