import { and, asc, eq, gte, inArray, isNull, lt, max, ne, or } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/field'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { query, sha256 } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { accounts, equipment, events, orders, people, sites, technicians, visits } from '../tables'
import { partsAt } from './findParts'
import { jobsOf } from './listJobs'

const DAYS_AHEAD = 14
const MOST_PARTS = 1_000
const MOST_EQUIPMENT = 500

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
    parts: await partsAt(db, who, site!.id, MOST_PARTS),
    equipment: await equipmentAt(db, site!.id),
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

/** Equipment of the site, which may be taken along by its tag. */
const equipmentAt = (db: Reader, siteId: number) =>
  db
    .select({ id: equipment.id, tag: equipment.tag, name: equipment.name })
    .from(equipment)
    .where(and(eq(equipment.siteId, siteId), isNull(equipment.retiredAt)))
    .orderBy(asc(equipment.tag))
    .limit(MOST_EQUIPMENT)
