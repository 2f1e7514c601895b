import { and, asc, desc, eq, gt } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { Closure, SpaceBookings } from '#contract/closures'
import { bookingsIn, closureStanding, MOST_SHOWN } from '#core/closures'
import type { SpaceBooking, Span } from '#core/closures'
import type { Outgoing, Reader, Service } from '#server/kit'
import { bulletins, closures, orders, places, sites } from '../tables'
import { BookingsSystem, Silent } from './bookingsSystem'

export type ClosureRecord = typeof closures.$inferSelect
export type PlaceRecord = typeof places.$inferSelect

export async function closureRows(db: Reader, where: SQL | undefined, now: Date): Promise<Outgoing<Closure>[]> {
  const rows = await db
    .select({
      closure: closures,
      place: { id: places.id, code: places.code, name: places.name },
      order: { id: orders.id, number: orders.number, summary: orders.summary },
      withdrawnAt: bulletins.withdrawnAt,
    })
    .from(closures)
    .innerJoin(places, eq(places.id, closures.placeId))
    .innerJoin(orders, eq(orders.id, closures.orderId))
    .leftJoin(bulletins, eq(bulletins.id, closures.bulletinId))
    .where(where)
    .orderBy(desc(closures.fromAt), desc(closures.id))
    .limit(100)
  return rows.map(({ closure, place, order, withdrawnAt }) => ({
    id: closure.id,
    version: closure.version,
    place,
    order,
    from: closure.fromAt,
    until: closure.untilAt,
    plannedUntil: closure.plannedUntilAt,
    reason: closure.reason,
    standing: closureStanding({ state: closure.state, from: closure.fromAt, until: closure.untilAt }, now),
    affects: closure.affects.map(({ from, until, ...one }) => ({ ...one, from: new Date(from), until: new Date(until) })),
    told: closure.told,
    toldAt: closure.toldAt,
    problem: closure.problem,
    atCounter: closure.bulletinId !== null && withdrawnAt === null,
    by: closure.createdByName,
  }))
}

/** The bookings system, or null where there is none. */
export const systemOf = ({ config }: Service): BookingsSystem | null => (config.caldavUrl ? new BookingsSystem(config.caldavUrl) : null)

export interface Asked {
  said: SpaceBookings['said']
  /** The first of them. */
  bookings: SpaceBooking[]
  total: number
}
const nothing = (said: Asked['said']): Asked => ({ said, bookings: [], total: 0 })
/** Who has waited in vain just now does not make everybody else wait as well. */
const QUIET_MS = 20_000
const quietUntil = new WeakMap<Service, number>()

/** What falls into a period of a space, by the bookings system; closures of our own are no bookings. */
export async function askAbout(db: Reader, service: Service, place: Pick<PlaceRecord, 'id' | 'code' | 'siteId'>, period: Span): Promise<Asked> {
  const system = systemOf(service)
  if (!system) return nothing('none')
  if (performance.now() < (quietUntil.get(service) ?? 0)) return nothing('silent')
  const [mine, [site]] = await Promise.all([
    db
      .select({ uid: closures.uid })
      .from(closures)
      .where(and(eq(closures.placeId, place.id), gt(closures.untilAt, period.from)))
      .orderBy(asc(closures.id)),
    db.select({ zone: sites.zone }).from(sites).where(eq(sites.id, place.siteId)),
  ])
  try {
    const said = await system.bookings(place.code, period, new Set(mine.map(({ uid }) => uid)), site!.zone)
    if (said.said === 'unknown') return nothing('unknown')
    const all = bookingsIn(period, said.busy, said.told, said.ours)
    return { said: 'bookings', bookings: all.slice(0, MOST_SHOWN), total: all.length }
  } catch (error) {
    if (!(error instanceof Silent)) throw error
    if (error.late) quietUntil.set(service, performance.now() + QUIET_MS)
    return nothing('silent')
  }
}

/** "“Seminar”, Nora Vale" or "Booked". */
export const bookingSays = ({ what, who }: Pick<SpaceBooking, 'what' | 'who'>): string => [what ? `“${what}”` : 'Booked', who].filter(Boolean).join(', ')
