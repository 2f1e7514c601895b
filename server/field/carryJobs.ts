import { and, asc, eq, gt, gte, inArray, isNull, lt, max, ne, or, sql } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/field'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { query, sha256 } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { accounts, events, orders, parts, people, sites, stockLevels, stores, technicians, visits } from '../tables'
import { jobsOf } from './listJobs'

const DAYS_AHEAD = 14
const MOST_PARTS = 1_000

/** What a phone carries along: what is still open, the days ahead, and what was done this week. */
export default query(contract.carryJobs, async ({ db, who, now }) => {
  const [site] = await db.select({ id: sites.id, zone: sites.zone }).from(sites).where(eq(sites.id, who.homeSiteId!))
  const today = DateTime.fromJSDate(now, { zone: site!.zone }).startOf('day')
  const until = today.plus({ days: DAYS_AHEAD }).toJSDate()
  const open = and(inArray(visits.state, LIVE_VISIT_STATES), lt(visits.plannedStart, until))
  const thisWeek = and(gte(visits.plannedStart, today.startOf('week').toJSDate()), lt(visits.plannedStart, today.endOf('week').toJSDate()))
  const rows = await jobsOf(db, who, site!.zone, or(open, thisWeek)!)
  return {
    rows,
    zone: site!.zone,
    marks: await marksOf(db, who, rows, today.toISODate()!),
    parts: await partsAt(db, site!.id),
    crew: await crewAt(db, who, site!.id),
  }
})

/** Whatever happens to an order is an event of it; what hangs on its place or asset is read anew once a day. */
async function marksOf(db: Reader, who: Asker, rows: readonly { visitId: number }[], day: string) {
  if (!rows.length) return []
  const found = await db
    .select({ visitId: visits.id, visitVersion: visits.version, version: orders.version, last: max(events.id) })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .leftJoin(events, eq(events.orderId, orders.id))
    .where(
      inArray(
        visits.id,
        rows.map(({ visitId }) => visitId),
      ),
    )
    .groupBy(visits.id, visits.version, orders.version)
  return found.map(({ visitId, ...facts }) => ({ visitId, mark: sha256(JSON.stringify([who.accountId, day, facts])).slice(0, 16) }))
}

/** Who else works in the field there. */
const crewAt = (db: Reader, who: Asker, siteId: number) =>
  db
    .select({ id: technicians.id, name: people.name })
    .from(technicians)
    .innerJoin(accounts, and(eq(accounts.id, technicians.accountId), isNull(accounts.disabledAt)))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(eq(people.siteId, siteId), ne(technicians.id, who.technicianId ?? -1)))
    .orderBy(asc(people.name))

const partsAt = (db: Reader, siteId: number) =>
  db
    .select({ id: parts.id, code: parts.code, name: parts.name, unit: parts.unit, inStock: sql<string>`sum(${stockLevels.quantity})` })
    .from(parts)
    .innerJoin(stockLevels, eq(stockLevels.partId, parts.id))
    .innerJoin(stores, eq(stores.id, stockLevels.storeId))
    .where(and(eq(stores.siteId, siteId), isNull(stores.retiredAt), isNull(parts.retiredAt), gt(stockLevels.quantity, '0')))
    .groupBy(parts.id)
    .orderBy(asc(parts.name))
    .limit(MOST_PARTS)
