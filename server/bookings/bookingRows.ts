import { and, asc, desc, eq, notInArray, or } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { Booking } from '#contract/bookings'
import { isLate } from '#core/bookings'
import type { OtherBooking } from '#core/bookings'
import { FINISHED_STATES, OVER_STATES } from '#core/orders'
import { maySee, notFound } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { bookings, equipment, orders, sites } from '../tables'

export type BookingRecord = typeof bookings.$inferSelect

/** Bookings that fit, in the order of their beginning, or the newest first. */
export async function bookingRows(db: Reader, where: SQL | undefined, now: Date, newestFirst = false, limit = 500): Promise<Outgoing<Booking>[]> {
  const rows = await db
    .select({ booking: bookings, tag: equipment.tag, name: equipment.name, order: { id: orders.id, number: orders.number, summary: orders.summary } })
    .from(bookings)
    .innerJoin(equipment, eq(equipment.id, bookings.equipmentId))
    .innerJoin(orders, eq(orders.id, bookings.orderId))
    .where(where)
    .orderBy(newestFirst ? desc(bookings.fromAt) : asc(bookings.fromAt), asc(bookings.id))
    .limit(limit)
  return rows.map(({ booking: { id, version, equipmentId, fromAt, untilAt, state, outTo, outAt, backAt, note }, ...named }) => ({
    id,
    version,
    equipmentId,
    ...named,
    from: fromAt,
    until: untilAt,
    state,
    late: isLate({ state, until: untilAt }, now),
    has: state === 'out' ? outTo : null,
    outAt,
    backAt,
    note,
  }))
}

export async function bookingRow(db: Reader, id: number, now: Date): Promise<Outgoing<Booking>> {
  const [row] = await bookingRows(db, eq(bookings.id, id), now)
  return row!
}

/** What counts: with somebody, or kept for an order whose work is not finished. */
export const COUNTS = or(eq(bookings.state, 'out'), and(eq(bookings.state, 'booked'), notInArray(orders.state, [...FINISHED_STATES, ...OVER_STATES])))

/** The other bookings of a piece of equipment that count. */
export async function othersOf(db: Reader, equipmentId: number, except: number | null): Promise<(OtherBooking & { has: string | null })[]> {
  const rows = await db
    .select({ booking: bookings, number: orders.number })
    .from(bookings)
    .innerJoin(orders, eq(orders.id, bookings.orderId))
    .where(and(eq(bookings.equipmentId, equipmentId), COUNTS))
    .orderBy(asc(bookings.fromAt))
  return rows
    .filter(({ booking }) => booking.id !== except)
    .map(({ booking: { id, state, fromAt, untilAt, outTo }, number }) => ({ id, state, from: fromAt, until: untilAt, orderNumber: number, has: outTo }))
}

/** Equipment in use at a site that is seen. @throws ProblemReply 404 */
export async function seenEquipment(db: Reader, who: Asker, id: number): Promise<typeof equipment.$inferSelect> {
  const [row] = await db.select().from(equipment).where(eq(equipment.id, id))
  if (!row || !maySee(who, row.siteId)) throw notFound('equipment')
  return row
}

/** The same, held: bookings of one piece come one after the other. @throws ProblemReply 404 */
export async function lockEquipment(tx: Tx, who: Asker, id: number): Promise<typeof equipment.$inferSelect> {
  const [row] = await tx.select().from(equipment).where(eq(equipment.id, id)).for('update')
  if (!row || !maySee(who, row.siteId)) throw notFound('equipment')
  return row
}

/** The day an instant falls on at a site. */
export async function dayAt(db: Reader, siteId: number, instant: Date): Promise<string> {
  const [site] = await db.select({ zone: sites.zone }).from(sites).where(eq(sites.id, siteId))
  return DateTime.fromJSDate(instant, { zone: site!.zone }).toISODate()!
}
