import { and, asc, eq, gt, inArray, like, lt, ne, or } from 'drizzle-orm'
import { SEEN_IN_FIELD } from '#core/orders'
import { FEED_DAYS } from '#core/feeds'
import type { FeedRegister } from '#core/feeds'
import type { Reader } from '#server/kit'
import { accounts, orders, people, places, sites, technicians, vendors, visits } from '../tables'

const DAY_MS = 86_400_000
const MOST = 2_000

/** Visits of one technician, a team, a vendor, or at a place and below, as far as a feed reaches. What is not approved is in none. */
export async function visitsIn(db: Reader, register: FeedRegister, recordId: number, now: Date) {
  const [place] = register === 'places' ? await db.select({ path: places.path }).from(places).where(eq(places.id, recordId)) : []
  const whose = {
    people: eq(people.id, recordId),
    teams: eq(technicians.teamId, recordId),
    vendors: eq(visits.vendorId, recordId),
    places: like(places.path, `${place?.path ?? '-'}%`),
  }[register]
  return db
    .select({
      visit: visits,
      order: { id: orders.id, number: orders.number, summary: orders.summary, access: orders.access },
      place: { code: places.code, name: places.name },
      site: { name: sites.name, email: sites.deskEmail, phone: sites.deskPhone, zone: sites.zone },
      person: people.name,
      vendor: vendors.name,
    })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(technicians, eq(technicians.id, visits.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(
      and(
        whose,
        ne(visits.state, 'recalled'),
        or(eq(visits.state, 'ended'), inArray(orders.state, [...SEEN_IN_FIELD])),
        gt(visits.plannedEnd, new Date(now.getTime() - FEED_DAYS.back * DAY_MS)),
        lt(visits.plannedStart, new Date(now.getTime() + FEED_DAYS.ahead * DAY_MS)),
      ),
    )
    .orderBy(asc(visits.plannedStart), asc(visits.id))
    .limit(MOST)
}
export type FeedVisit = Awaited<ReturnType<typeof visitsIn>>[number]
