import { and, asc, eq, gt, inArray, isNotNull, isNull, lt, ne, notExists, or, sql } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/board'
import type { BoardVisit } from '#contract/board'
import { hoursShown } from '#core/board'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { shiftOn } from '#core/people'
import { keepsTo } from '#core/windows'
import { mySite, query } from '#server/kit'
import type { Outgoing } from '#server/kit'
import { gaugeTarget, windowOf } from '#server/orders'
import { accounts, leaves, orders, people, places, shiftExceptions, teams, technicians, technicianTrades, trades, vendors, visits } from '../tables'
import { readyOf } from './readyOf'

const MOST_WAITING = 200

export default query(contract.readBoard, async ({ db, who, input, now }) => {
  const site = await mySite(db, who, input.siteId)
  const { zone } = site
  const days = input.days ?? 1
  const start = (input.first ? DateTime.fromISO(input.first, { zone }) : DateTime.fromJSDate(now, { zone })).startOf('day')
  const end = start.plus({ days })
  const [from, until] = [start.toJSDate(), end.toJSDate()]
  const shown = Array.from({ length: days }, (_, day) => start.plus({ days: day }))
  const dayNames = shown.map((day) => day.toISODate()!)
  // Nobody is planned to go: no visit lives on it.
  const live = db
    .select({ one: sql`1` })
    .from(visits)
    .where(and(eq(visits.orderId, orders.id), inArray(visits.state, LIVE_VISIT_STATES)))
  const [crew, skills, away, otherwise, visitRows, waiting] = await Promise.all([
    db
      .select({ id: technicians.id, name: people.name, team: teams.name, shift: technicians.shift })
      .from(technicians)
      .innerJoin(accounts, and(eq(accounts.id, technicians.accountId), isNull(accounts.disabledAt)))
      .innerJoin(people, eq(people.id, accounts.personId))
      .innerJoin(teams, eq(teams.id, technicians.teamId))
      .where(eq(teams.siteId, site.id))
      .orderBy(asc(teams.name), asc(people.name)),
    db
      .select({ technicianId: technicianTrades.technicianId, name: trades.name })
      .from(technicianTrades)
      .innerJoin(trades, eq(trades.id, technicianTrades.tradeId))
      .orderBy(asc(trades.name)),
    db
      .select()
      .from(leaves)
      .where(and(lt(leaves.fromAt, until), gt(leaves.untilAt, from))),
    db.select().from(shiftExceptions).where(inArray(shiftExceptions.day, dayNames)),
    db
      .select({ visit: visits, order: orders, placeCode: places.code, vendor: vendors.name })
      .from(visits)
      .innerJoin(orders, eq(orders.id, visits.orderId))
      .leftJoin(places, eq(places.id, orders.placeId))
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
      .select({ order: orders, placeCode: places.code, trade: trades.name })
      .from(orders)
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
      .orderBy(asc(orders.completionDueAt), asc(orders.id))
      .limit(MOST_WAITING),
  ])
  const drawn = visitRows.map(({ visit, order, placeCode, vendor }) => {
    const window = windowOf(order)
    const begins = visit.startedAt ?? visit.plannedStart
    const planned = visit.startedAt && now > visit.plannedEnd ? now : visit.plannedEnd
    const ends = new Date(Math.max((visit.endedAt ?? planned).getTime(), begins.getTime() + 60_000))
    const one: Outgoing<BoardVisit> = {
      id: visit.id,
      orderId: order.id,
      number: order.number,
      summary: order.summary,
      placeCode,
      priority: order.priority,
      kind: visit.kind,
      state: visit.state as BoardVisit['state'],
      from: begins,
      until: ends,
      window,
      outside: window !== null && !keepsTo(window, visit.plannedStart),
      target: gaugeTarget(order),
    }
    return { one, span: { from: begins, until: ends }, technicianId: visit.technicianId, vendorId: visit.vendorId, vendor }
  })
  const persons = crew.map(({ id, name, team, shift }) => ({
    id,
    name,
    team,
    trades: skills.filter((row) => row.technicianId === id).map((row) => row.name),
    shifts: shown.flatMap((day) =>
      shiftOn(
        shift,
        otherwise.filter((row) => row.technicianId === id),
        day.toISODate()!,
        day.weekday,
      ).map((stretch) => ({
        from: DateTime.fromISO(`${day.toISODate()}T${stretch.from}`, { zone }).toJSDate(),
        until: DateTime.fromISO(`${day.toISODate()}T${stretch.to}`, { zone }).toJSDate(),
      })),
    ),
    away: away.filter((row) => row.technicianId === id).map((row) => ({ from: row.fromAt, until: row.untilAt })),
    visits: drawn.filter((row) => row.technicianId === id).map((row) => row.one),
  }))
  const vendorIds = [...new Set(drawn.flatMap((row) => row.vendorId ?? []))]
  const ready = await readyOf(
    db,
    waiting.map(({ order }) => order),
    now,
  )
  const inDays = (span: { from: Date; until: Date }) => ({ from: span.from < from ? from : span.from, until: span.until > until ? until : span.until })
  return {
    zone,
    first: dayNames[0]!,
    last: dayNames.at(-1)!,
    days,
    hours: hoursShown([...persons.flatMap((one) => one.shifts), ...drawn.map(({ span }) => inDays(span))], zone),
    now,
    people: persons,
    vendors: vendorIds.map((id) => ({
      id,
      name: drawn.find((row) => row.vendorId === id)!.vendor ?? '',
      visits: drawn.filter((row) => row.vendorId === id).map((row) => row.one),
    })),
    waiting: waiting.map(({ order, placeCode, trade }) => ({
      id: order.id,
      number: order.number,
      summary: order.summary,
      state: order.state,
      holdReason: order.holdReason,
      placeCode,
      trade,
      priority: order.priority,
      target: gaugeTarget(order),
      window: windowOf(order),
      ready: ready.get(order.id) ?? [],
    })),
  }
})
