import { and, asc, eq, gt, inArray, lt, ne } from 'drizzle-orm'
import { liveVisit } from '#server/dispatch/records'
import type { Tx } from '#server/kit'
import { orders, places, visits } from '../tables'
import type { CrewMember } from './crewOf'

export const asTechnician = (member: CrewMember, mine: Awaited<ReturnType<typeof visitsOf>>) => ({
  name: member.name,
  tradeIds: member.trades.map(({ id }) => id),
  skills: member.skills,
  shifts: member.shifts,
  away: member.away,
  onCall: member.onCall,
  visits: mine,
})

/** Where technicians are, or are planned to be, within a time; what runs lasts until now at least. */
export async function visitsOf(tx: Pick<Tx, 'select'>, technicianIds: readonly number[], from: Date, until: Date, now: Date) {
  if (!technicianIds.length) return []
  const rows = await tx
    .select({ visit: visits, number: orders.number, path: places.path })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(
      and(
        inArray(visits.technicianId, [...technicianIds]),
        liveVisit,
        ne(orders.state, 'on_hold'),
        lt(visits.plannedStart, until),
        gt(visits.plannedEnd, from),
      ),
    )
    .orderBy(asc(visits.plannedStart))
  return rows.map(({ visit, number, path }) => ({
    id: visit.id,
    technicianId: visit.technicianId,
    number,
    path,
    from: visit.startedAt ?? visit.plannedStart,
    until: visit.startedAt && now > visit.plannedEnd ? now : visit.plannedEnd,
  }))
}
