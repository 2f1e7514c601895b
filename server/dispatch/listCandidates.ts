import { and, count, eq, gt, inArray, isNotNull, isNull, lt, sql } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/dispatch'
import { fitnessOf, LIVE_VISIT_STATES } from '#core/dispatch'
import { presenceOf } from '#core/board'
import type { DayStretch } from '#core/kit'
import { byFitness, GRACE_MINUTES, papersOn } from '#core/vendors'
import type { Punctuality } from '#core/vendors'
import { maySee, notFound, query } from '#server/kit'
import { onCallAt } from '#server/shifts'
import type { Reader } from '#server/kit'
import {
  accounts,
  leaves,
  orderPlans,
  orders,
  people,
  shiftExceptions,
  sites,
  teams,
  technicians,
  technicianSkills,
  technicianTrades,
  trades,
  vendors,
  vendorSites,
  vendorTrades,
  visits,
} from '../tables'

const DAY = 86_400_000
const YEAR = 365 * DAY

export default query(contract.listCandidates, async ({ db, who, input, now }) => {
  const [found] = await db
    .select({ tradeId: orders.tradeId, site: sites, labour: orderPlans.labour })
    .from(orders)
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .leftJoin(orderPlans, eq(orderPlans.orderId, orders.id))
    .where(eq(orders.id, input.orderId))
  if (!found || !maySee(who, found.site.id)) throw notFound('order')
  const { skills } = presenceOf(found.labour, found.tradeId)
  const wish = { tradeId: found.tradeId, skills, start: new Date(input.start), end: new Date(input.end), zone: found.site.zone }
  const around = [new Date(wish.start.getTime() - DAY), new Date(wish.end.getTime() + DAY)] as const
  const days = [-1, 0, 1].map((by) => DateTime.fromJSDate(wish.start, { zone: wish.zone }).plus({ days: by }).toISODate()!)
  const [crew, tradeRows, skillRows, away, otherwise, planned, vendorRows, vendorTradeRows, served, punctual, onCall] = await Promise.all([
    db
      .select({ id: technicians.id, name: people.name, team: teams.name, shift: technicians.shift })
      .from(technicians)
      .innerJoin(accounts, eq(accounts.id, technicians.accountId))
      .innerJoin(people, eq(people.id, accounts.personId))
      .innerJoin(teams, eq(teams.id, technicians.teamId))
      .where(eq(teams.siteId, found.site.id)),
    db
      .select({ technicianId: technicianTrades.technicianId, id: trades.id, name: trades.name })
      .from(technicianTrades)
      .innerJoin(trades, eq(trades.id, technicianTrades.tradeId)),
    skills.length ? db.select().from(technicianSkills) : [],
    db
      .select()
      .from(leaves)
      .where(and(lt(leaves.fromAt, around[1]), gt(leaves.untilAt, around[0]))),
    db.select().from(shiftExceptions).where(inArray(shiftExceptions.day, days)),
    db
      .select({ technicianId: visits.technicianId, start: visits.plannedStart, end: visits.plannedEnd })
      .from(visits)
      .where(and(inArray(visits.state, LIVE_VISIT_STATES), lt(visits.plannedStart, around[1]), gt(visits.plannedEnd, around[0]))),
    db.select().from(vendors).where(isNull(vendors.retiredAt)),
    db.select().from(vendorTrades),
    db.select().from(vendorSites),
    punctualityOf(db, now),
    onCallAt(db, found.site.id, wish.start, wish.end),
  ])
  const day = days[1]!
  const called = new Set(onCall.filter(({ from, until }) => from <= wish.start && until >= wish.end).map(({ technicianId }) => technicianId))
  const technicianRows = crew.map(({ id, name, team, shift }) => {
    const mine = tradeRows.filter((row) => row.technicianId === id)
    const candidate = {
      tradeIds: mine.map((row) => row.id),
      skills: skillRows.filter((row) => row.technicianId === id).map((row) => ({ name: row.name, until: row.validUntil })),
      shift,
      exceptions: otherwise.filter((row) => row.technicianId === id),
      leave: away.filter((row) => row.technicianId === id).map((row) => ({ from: row.fromAt, to: row.untilAt })),
      planned: planned.filter((row) => row.technicianId === id),
    }
    return { id, name, team, trades: mine.map((row) => row.name), shift: shiftWords(shift), onCall: called.has(id), fitness: fitnessOf(candidate, wish) }
  })
  const score = ({ fitness, onCall }: (typeof technicianRows)[number]) =>
    (fitness.hasTrade ? 0 : 4) +
    (fitness.lacks.length ? 3 : 0) +
    (fitness.away ? 3 : 0) +
    (fitness.onShift || onCall ? 0 : 2) +
    (fitness.overlapMinutes ? 1 : 0)
  technicianRows.sort((a, b) => score(a) - score(b) || a.fitness.loadMinutes - b.fitness.loadMinutes || a.name.localeCompare(b.name))
  // Who said where they come, comes there alone.
  const comes = (vendorId: number) => {
    const where = served.filter((row) => row.vendorId === vendorId)
    return !where.length || where.some((row) => row.siteId === found.site.id)
  }
  const vendorChoices = vendorRows
    .filter((vendor) => comes(vendor.id))
    .map((vendor) => ({
      id: vendor.id,
      name: vendor.name,
      service: vendor.service,
      papers: papersOn(vendor, day),
      callOutMinor: vendor.callOutMinor,
      perHourMinor: vendor.perHourMinor,
      punctuality: punctual.get(vendor.id) ?? { onTime: 0, visits: 0 },
      hasTrade: found.tradeId === null || vendorTradeRows.some((row) => row.vendorId === vendor.id && row.tradeId === found.tradeId),
    }))
  vendorChoices.sort(byFitness)
  return { technicians: technicianRows, vendors: vendorChoices }
})

/** How often vendors came when they were to come, within the last twelve months. */
async function punctualityOf(db: Reader, now: Date): Promise<Map<number, Punctuality>> {
  const rows = await db
    .select({
      vendorId: visits.vendorId,
      visits: count(),
      onTime: sql<number>`cast(sum(${visits.startedAt} <= ${visits.plannedStart} + interval ${GRACE_MINUTES} minute) as signed)`,
    })
    .from(visits)
    .where(and(isNotNull(visits.vendorId), isNotNull(visits.startedAt), gt(visits.plannedStart, new Date(now.getTime() - YEAR))))
    .groupBy(visits.vendorId)
  return new Map(rows.map(({ vendorId, ...seen }) => [vendorId!, { visits: seen.visits, onTime: Number(seen.onTime) }]))
}

/** "Mon to Fri 08:00 to 16:30" from a weekly shift: the days that have the first working day's hours. */
function shiftWords(shift: DayStretch[][]): string {
  const names = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
  const first = shift.find((day) => day.length)?.[0]
  if (!first) return 'no shift'
  const days = shift.flatMap((day, index) => (day[0]?.from === first.from && day[0]?.to === first.to ? [index] : []))
  const unbroken = days.every((day, index) => index === 0 || day === days[index - 1]! + 1)
  const words = unbroken && days.length > 2 ? `${names[days[0]!]} to ${names[days.at(-1)!]}` : days.map((day) => names[day]).join(', ')
  return `${words} ${first.from} to ${first.to}`
}
