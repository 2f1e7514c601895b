import { and, asc, eq, gt, inArray, isNull, lt, ne, or } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/bookings'
import { canAt, maySee, mySite, query } from '#server/kit'
import { seenOrder } from '#server/orders'
import { isFinished, isOver } from '#core/orders'
import { bookings, equipment, orderPlans, places, visits } from '../tables'
import { bookingRows, dayAt, seenEquipment } from './bookingRows'
import { heldAgainst } from './changeBooking'

const USUAL_DAYS = 14
const MOST_PIECES = 500

export const readEquipmentCalendar = query(contract.readEquipmentCalendar, async ({ db, who, input, now }) => {
  const site = await mySite(db, who, input.siteId)
  const today = DateTime.fromJSDate(now, { zone: site.zone }).startOf('day')
  const from = input.from ? DateTime.fromISO(input.from, { zone: site.zone }) : today
  const end = from.plus({ days: input.days ?? USUAL_DAYS })
  const pieces = await db
    .select({ piece: equipment, place: places.name })
    .from(equipment)
    .leftJoin(places, eq(places.id, equipment.placeId))
    .where(and(eq(equipment.siteId, site.id), isNull(equipment.retiredAt)))
    .orderBy(asc(equipment.tag))
    .limit(MOST_PIECES)
  const ids = pieces.map(({ piece }) => piece.id)
  const shown = and(
    inArray(bookings.equipmentId, ids),
    ne(bookings.state, 'cancelled'),
    // What is with somebody is shown for as long as they have it.
    or(eq(bookings.state, 'out'), and(lt(bookings.fromAt, end.toJSDate()), gt(bookings.untilAt, from.toJSDate()))),
  )
  const all = ids.length ? await bookingRows(db, shown, now) : []
  return {
    from: from.toISODate()!,
    to: end.minus({ days: 1 }).toISODate()!,
    rows: pieces.map(({ piece: { id, tag, name, inspectedUntil }, place }) => {
      const mine = all.filter((one) => one.equipmentId === id)
      const out = mine.find(({ state }) => state === 'out')
      return {
        id,
        tag,
        name,
        place,
        inspectedUntil,
        inspectionEnded: inspectedUntil !== null && inspectedUntil < today.toISODate()!,
        out: out ? { has: out.has ?? '', order: out.order.number, late: out.late } : null,
        bookings: mine,
      }
    }),
  }
})

export const listBookingsOf = query(contract.listBookingsOf, async ({ db, who, input, now }) => {
  const piece = await seenEquipment(db, who, input.id)
  const rows = await bookingRows(db, eq(bookings.equipmentId, piece.id), now, true, 100)
  const open = rows.filter(({ state }) => state === 'booked' || state === 'out').reverse()
  return { rows: [...open, ...rows.filter((row) => !open.includes(row))], mayHandOut: canAt(who, 'orders.dispatch', piece.siteId) }
})

export const checkBooking = query(contract.checkBooking, async ({ db, who, input, now }) => {
  const piece = await seenEquipment(db, who, input.equipmentId)
  const { clashes, reasons } = await heldAgainst(db, piece, { from: new Date(input.from), until: new Date(input.until) }, input.bookingId ?? null, now)
  return {
    clashes: clashes.map(({ id, orderNumber, state, from, until }) => ({ id, orderNumber, state, from, until })),
    sentences: reasons.map(({ sentence }) => sentence),
  }
})

export const readOrderBookings = query(contract.readOrderBookings, async ({ db, who, input, now }) => {
  const order = await seenOrder(db, who, input.orderId)
  const [rows, [plan], [visit]] = await Promise.all([
    bookingRows(db, and(eq(bookings.orderId, order.id), ne(bookings.state, 'cancelled')), now),
    db.select({ tools: orderPlans.tools }).from(orderPlans).where(eq(orderPlans.orderId, order.id)),
    db
      .select({ from: visits.plannedStart, until: visits.plannedEnd })
      .from(visits)
      .where(and(eq(visits.orderId, order.id), gt(visits.plannedEnd, now)))
      .orderBy(asc(visits.plannedStart))
      .limit(1),
  ])
  const planned = [...new Set((plan?.tools ?? []).flatMap(({ equipmentId }) => equipmentId ?? []))]
  const missing = planned.filter((id) => !rows.some((row) => row.equipmentId === id))
  const wanted = missing.length
    ? await db
        .select({ equipmentId: equipment.id, tag: equipment.tag, name: equipment.name, siteId: equipment.siteId })
        .from(equipment)
        .where(inArray(equipment.id, missing))
    : []
  const open = !isFinished(order.state) && !isOver(order.state) && !order.discardedAt
  const tomorrow = DateTime.fromISO(await dayAt(db, order.siteId, now), { zone: 'utc' }).plus({ days: 1 })
  return {
    rows,
    wanted: wanted.filter(({ siteId }) => maySee(who, siteId)).map(({ siteId: _, ...one }) => one),
    proposed: visit ?? { from: tomorrow.set({ hour: 8 }).toJSDate(), until: tomorrow.set({ hour: 17 }).toJSDate() },
    mayBook: open && canAt(who, 'orders.edit', order.siteId),
    mayHandOut: canAt(who, 'orders.dispatch', order.siteId),
  }
})
