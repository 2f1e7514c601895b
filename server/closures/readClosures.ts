import { and, asc, eq, gt } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/closures'
import type { OrderClosures } from '#contract/closures'
import { isFinished, isOver } from '#core/orders'
import { canAt, maySee, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader, Service } from '#server/kit'
import { calendarOf, seenOrder, windowOf } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { closures, places, visits } from '../tables'
import { askAbout, closureRows } from './closureRows'
import type { PlaceRecord } from './closureRows'

export const isOpenFor = (order: OrderRecord): boolean => !isFinished(order.state) && !isOver(order.state) && !order.discardedAt

/** A space somebody may see. @throws ProblemReply 404 */
export async function seenSpace(db: Reader, who: Asker, id: number): Promise<PlaceRecord> {
  const [place] = await db.select().from(places).where(eq(places.id, id))
  if (!place || !maySee(who, place.siteId)) throw notFound('place')
  return place
}

/** When somebody is to be there: as agreed, or as the next visit is planned. */
async function plannedFor(db: Reader, order: OrderRecord, now: Date): Promise<{ from: Date; until: Date } | null> {
  const window = windowOf(order)
  if (window && window.until > now) return { from: window.from, until: window.until }
  const [visit] = await db
    .select({ from: visits.plannedStart, until: visits.plannedEnd })
    .from(visits)
    .where(and(eq(visits.orderId, order.id), gt(visits.plannedEnd, now)))
    .orderBy(asc(visits.plannedStart))
    .limit(1)
  return visit ?? null
}

export async function closuresOf(db: Reader, service: Service, who: Asker, order: OrderRecord, now: Date): Promise<Outgoing<OrderClosures>> {
  const [rows, [place], planned, { zone }] = await Promise.all([
    closureRows(db, eq(closures.orderId, order.id), now),
    order.placeId === null ? [] : db.select().from(places).where(eq(places.id, order.placeId)),
    plannedFor(db, order, now),
    calendarOf(db, order.siteId),
  ])
  const tomorrow = DateTime.fromJSDate(now, { zone }).startOf('day').plus({ days: 1 })
  return {
    rows,
    place: place?.kind === 'space' ? { id: place.id, code: place.code, name: place.name } : null,
    proposed: planned ?? { from: tomorrow.set({ hour: 8 }).toJSDate(), until: tomorrow.set({ hour: 17 }).toJSDate() },
    connected: service.config.caldavUrl !== null,
    mayClose: isOpenFor(order) && canAt(who, 'orders.edit', order.siteId),
  }
}

export const readOrderClosures = query(contract.readOrderClosures, async ({ db, who, input, now, service }) =>
  closuresOf(db, service, who, await seenOrder(db, who, input.orderId), now),
)

export const listPlaceClosures = query(contract.listPlaceClosures, async ({ db, who, input, now }) => {
  const place = await seenSpace(db, who, input.placeId)
  return { rows: await closureRows(db, eq(closures.placeId, place.id), now) }
})

export const checkSpace = query(contract.checkSpace, async ({ db, who, input, service }) => {
  const place = await seenSpace(db, who, input.placeId)
  const period = { from: new Date(input.from), until: new Date(input.until) }
  return period.until <= period.from ? { said: 'none' as const, bookings: [], total: 0 } : askAbout(db, service, place, period)
})

export const readSpaceFree = query(contract.readSpaceFree, async ({ db, who, input, now, service }) => {
  const order = await seenOrder(db, who, input.orderId)
  const at = await plannedFor(db, order, now)
  const [place] = order.placeId === null ? [] : await db.select().from(places).where(eq(places.id, order.placeId))
  if (!at || place?.kind !== 'space' || !isOpenFor(order)) return { at, said: 'none' as const, bookings: [], total: 0 }
  const closed = await db
    .select({ from: closures.fromAt, until: closures.untilAt })
    .from(closures)
    .where(and(eq(closures.orderId, order.id), eq(closures.placeId, place.id), eq(closures.state, 'kept')))
  // What falls into it was seen when the space was taken out of use.
  if (closed.some(({ from, until }) => from <= at.from && at.until <= until)) return { at, said: 'none' as const, bookings: [], total: 0 }
  return { at, ...(await askAbout(db, service, place, at)) }
})
