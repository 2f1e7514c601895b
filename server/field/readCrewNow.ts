import { and, asc, eq, inArray, isNotNull, isNull, lt, max } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/field'
import type { CrewRow } from '#contract/field'
import { crewSigns } from '#core/field'
import { SEEN_IN_FIELD } from '#core/orders'
import { query, withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { accounts, devices, events, loneWatches, orders, people, places, sites, stints, teams, technicians, vendors, visits } from '../tables'
import { vendorThere } from './vendorThere'

const JOB = {
  orderId: orders.id,
  number: orders.number,
  summary: orders.summary,
  placeCode: places.code,
  placeName: places.name,
  plannedEnd: visits.plannedEnd,
}

export default query(contract.readCrewNow, async ({ db, who, input, now }) => {
  const site = (column: Parameters<typeof withinSites>[1]) => and(withinSites(who, column), input.siteId ? eq(column, input.siteId) : undefined)
  const [crew, running, late, there] = await Promise.all([
    db
      .select({ id: technicians.id, accountId: accounts.id, personId: people.id, name: people.name })
      .from(technicians)
      .innerJoin(accounts, and(eq(accounts.id, technicians.accountId), isNull(accounts.disabledAt)))
      .innerJoin(people, eq(people.id, accounts.personId))
      .innerJoin(teams, eq(teams.id, technicians.teamId))
      .where(site(teams.siteId))
      .orderBy(asc(people.name)),
    db
      .select({ technicianId: stints.technicianId, kind: stints.kind, since: stints.startAt, checkInBy: loneWatches.dueAt, ...JOB })
      .from(stints)
      .innerJoin(visits, eq(visits.id, stints.visitId))
      .leftJoin(loneWatches, eq(loneWatches.visitId, visits.id))
      .innerJoin(orders, eq(orders.id, stints.orderId))
      .leftJoin(places, eq(places.id, orders.placeId))
      .where(and(isNotNull(stints.runningTechnicianId), site(orders.siteId))),
    toBegin(db, who, input.siteId, now),
    db
      .select({ name: vendorThere, since: visits.startedAt, ...JOB })
      .from(visits)
      .innerJoin(vendors, eq(vendors.id, visits.vendorId))
      .innerJoin(orders, eq(orders.id, visits.orderId))
      .leftJoin(places, eq(places.id, orders.placeId))
      .where(and(eq(visits.state, 'on_site'), site(orders.siteId)))
      .orderBy(asc(vendors.name)),
  ])
  const heard = await heardOf(db, crew, running.map(({ orderId }) => orderId)) // prettier-ignore
  const rows = crew.flatMap(({ id, accountId, personId, name }): Outgoing<CrewRow>[] => {
    const runs = running.find(({ technicianId }) => technicianId === id)
    const next = late.find(({ technicianId }) => technicianId === id) ?? null
    if (!runs && !next) return []
    const heardAt = heard.get(accountId) ?? null
    const signs = crewSigns({ running: runs ?? null, checkInBy: runs?.checkInBy ?? null, next, heardAt }, now)
    const { orderId, number, summary, placeCode, placeName, plannedEnd } = runs ?? ({} as NonNullable<typeof runs>)
    return [
      {
        ...{ technicianId: id, personId, name, heardAt, signs },
        kind: runs?.kind ?? null,
        since: runs?.since ?? null,
        job: runs ? { orderId, number, summary, placeCode, placeName, plannedEnd } : null,
        next: next && { orderId: next.orderId, number: next.number, plannedStart: next.plannedStart },
      },
    ]
  })
  const vendorRows = there.map(({ name, since, ...job }): Outgoing<CrewRow> => {
    const signs = crewSigns({ running: { since: since ?? now, plannedEnd: job.plannedEnd }, next: null, heardAt: now }, now)
    return { technicianId: null, personId: null, name, kind: null, since, job, next: null, heardAt: null, signs }
  })
  const worst = (row: Outgoing<CrewRow>) => Math.max(0, ...row.signs.map(({ minutes }) => minutes))
  return {
    rows: [...rows, ...vendorRows].sort(
      (a, b) => Number(!!b.signs.length) - Number(!!a.signs.length) || worst(b) - worst(a) || String(a.name).localeCompare(String(b.name)),
    ),
    idle: crew.length - rows.length,
  }
})

/** Visits of today that should have begun by now, the earliest first. */
async function toBegin(db: Reader, who: Asker, siteId: number | undefined, now: Date) {
  const rows = await db
    .select({ technicianId: visits.technicianId, plannedStart: visits.plannedStart, orderId: orders.id, number: orders.number, zone: sites.zone })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .where(
      and(
        eq(visits.state, 'planned'),
        isNotNull(visits.technicianId),
        inArray(orders.state, [...SEEN_IN_FIELD]),
        lt(visits.plannedStart, now),
        withinSites(who, orders.siteId),
        siteId ? eq(orders.siteId, siteId) : undefined,
      ),
    )
    .orderBy(asc(visits.plannedStart))
  return rows.filter(({ plannedStart, zone }) => plannedStart >= DateTime.fromJSDate(now, { zone }).startOf('day').toJSDate())
}

/** When anything of theirs was heard of last: their phone, or what they did on the jobs they are on. */
async function heardOf(db: Reader, crew: readonly { accountId: number }[], orderIds: number[]): Promise<Map<number, Date>> {
  const accountIds = crew.map(({ accountId }) => accountId)
  if (!accountIds.length) return new Map()
  const [phones, acts] = await Promise.all([
    db
      .select({ accountId: devices.accountId, at: max(devices.heardAt) })
      .from(devices)
      .where(and(inArray(devices.accountId, accountIds), isNull(devices.endedAt)))
      .groupBy(devices.accountId),
    orderIds.length
      ? db
          .select({ accountId: events.actorId, at: max(events.at) })
          .from(events)
          .where(and(inArray(events.orderId, orderIds), inArray(events.actorId, accountIds)))
          .groupBy(events.actorId)
      : [],
  ])
  const heard = new Map<number, Date>()
  for (const { accountId, at } of [...phones, ...acts]) if (accountId && at && at > (heard.get(accountId) ?? new Date(0))) heard.set(accountId, at)
  return heard
}
