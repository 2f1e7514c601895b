import { and, asc, count, desc, eq, gt, gte, isNotNull, isNull, lt, max } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/board'
import { KNOWN_MONTHS, loadOf } from '#core/board'
import { liveVisit } from '#server/dispatch/records'
import { maySee, mySite, notFound, query } from '#server/kit'
import { assets, orders, places, stints, technicianSkills, visits } from '../tables'
import { crewOf } from './crewOf'
import { daysFrom, firstDay } from './days'

const MOST_KNOWN = 12

export default query(contract.readBoardPerson, async ({ db, who, input, now }) => {
  const site = await mySite(db, who, input.siteId)
  const { zone } = site
  const first = firstDay(input.day, now, zone).startOf('week')
  const days = daysFrom(first, 7)
  const [from, until] = [first.toJSDate(), first.plus({ days: 7 }).toJSDate()]
  const member = (await crewOf(db, site.id, days)).find(({ id }) => id === input.technicianId)
  if (!member) throw notFound('technician')
  const year = DateTime.fromJSDate(now).minus({ months: KNOWN_MONTHS }).toJSDate()
  const [planned, skills, running, known] = await Promise.all([
    db
      .select({ from: visits.plannedStart, until: visits.plannedEnd, agreedFrom: orders.windowFrom })
      .from(visits)
      .innerJoin(orders, eq(orders.id, visits.orderId))
      .where(and(eq(visits.technicianId, member.id), liveVisit, lt(visits.plannedStart, until), gt(visits.plannedEnd, from))),
    db.select().from(technicianSkills).where(eq(technicianSkills.technicianId, member.id)).orderBy(asc(technicianSkills.name)),
    db
      .select({ siteId: orders.siteId, orderId: orders.id, number: orders.number, code: places.code, name: places.name, since: stints.startAt })
      .from(stints)
      .innerJoin(orders, eq(orders.id, stints.orderId))
      .leftJoin(places, eq(places.id, orders.placeId))
      .where(and(eq(stints.runningTechnicianId, member.id), isNull(stints.endAt))),
    db
      .select({ assetId: assets.id, tag: assets.tag, name: assets.name, times: count(), last: max(visits.endedAt) })
      .from(visits)
      .innerJoin(orders, eq(orders.id, visits.orderId))
      .innerJoin(assets, eq(assets.id, orders.assetId))
      .where(
        and(eq(visits.technicianId, member.id), eq(assets.siteId, site.id), eq(visits.state, 'ended'), isNotNull(visits.endedAt), gte(visits.endedAt, year)),
      )
      .groupBy(assets.id, assets.tag, assets.name)
      .orderBy(desc(max(visits.endedAt)))
      .limit(MOST_KNOWN),
  ])
  const today = DateTime.fromJSDate(now, { zone }).toISODate()!
  // What they do elsewhere is told to those of there.
  const at = running.find(({ siteId }) => maySee(who, siteId))
  return {
    id: member.id,
    name: member.name,
    week: {
      first: days[0]!.toISODate(),
      last: days[6]!.toISODate(),
      ...loadOf(
        member,
        planned.map((one) => ({ ...one, promised: one.agreedFrom !== null })),
        { from, until },
      ),
    },
    at: at ? { orderId: at.orderId, number: at.number, place: at.code ? `${at.code} ${at.name}` : null, since: at.since } : null,
    skills: skills.map(({ name, validUntil }) => ({ name, until: validUntil, over: validUntil !== null && validUntil < today })),
    knows: known.map((row) => ({ ...row, last: row.last! })),
  }
})
