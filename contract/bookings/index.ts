import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { BookingState } from '#core/bookings'

export interface Booking {
  id: number
  version: number
  equipmentId: number
  tag: string
  name: string
  order: { id: number; number: string; summary: string }
  from: Instant
  until: Instant
  state: BookingState
  late: boolean
  /** Who has it, once it is handed out. */
  has: string | null
  outAt: Instant | null
  backAt: Instant | null
  note: string | null
}

/** What is in the way of a period. */
export interface BookingClash {
  id: number
  orderNumber: string
  state: BookingState
  from: Instant
  until: Instant
}

interface EquipmentLine {
  id: number
  tag: string
  name: string
  /** Where it is kept. */
  place: string | null
  inspectedUntil: string | null
  inspectionEnded: boolean
  /** Who has it now, and for which order. */
  out: { has: string; order: string; late: boolean } | null
  bookings: Booking[]
}
export interface EquipmentCalendar {
  /** The days shown, the first and the last among them. */
  from: string
  to: string
  rows: EquipmentLine[]
}

export const readEquipmentCalendar = endpoint<{ siteId: number; from?: string; days?: number }, EquipmentCalendar>({
  method: 'GET',
  path: '/api/equipment/calendar/:siteId',
  says: 'Every piece of equipment of a site, with who has it and what it is booked for in these days.',
  may: 'desk.read',
  input: Joi.object<{ siteId: number; from?: string; days?: number }, true>({
    siteId: field.id().required(),
    from: field.day(),
    days: Joi.number().integer().min(1).max(92),
  }),
})

export const listBookingsOf = endpoint<{ id: number }, { rows: Booking[]; mayHandOut: boolean }>({
  method: 'GET',
  path: '/api/equipment/:id/bookings',
  says: 'What a piece of equipment is and was booked for, what is to come first.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export interface OrderBookings {
  rows: Booking[]
  /** Planned for the order, and not booked for it. */
  wanted: { equipmentId: number; tag: string; name: string }[]
  /** The time of its planned visits, or of its day: what a booking is proposed for. */
  proposed: { from: Instant; until: Instant }
  mayBook: boolean
  mayHandOut: boolean
}
const ofOrder = { orderId: field.id().required() }
export const readOrderBookings = endpoint<{ orderId: number }, OrderBookings>({
  method: 'GET',
  path: '/api/orders/:orderId/bookings',
  says: 'Equipment that is booked for an order, and what is planned and not booked.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>(ofOrder),
})

interface Asked {
  equipmentId: number
  from: string
  until: string
}
const period = { from: field.instant().required(), until: field.instant().required() }
export const checkBooking = endpoint<Asked & { bookingId?: number }, { clashes: BookingClash[]; sentences: string[] }>({
  method: 'GET',
  path: '/api/equipment/:equipmentId/free',
  says: 'What is in the way of a period: other bookings, or an inspection that ends.',
  may: 'desk.read',
  input: Joi.object<Asked & { bookingId?: number }, true>({ equipmentId: field.id().required(), ...period, bookingId: field.id() }),
})

export const bookEquipment = endpoint<Asked & { orderId: number }, Booking>({
  method: 'POST',
  path: '/api/orders/:orderId/bookings',
  says: 'Book a piece of equipment for an order. What is booked or with somebody then cannot be booked twice.',
  may: 'orders.edit',
  input: Joi.object<Asked & { orderId: number }, true>({ ...ofOrder, equipmentId: field.id().required(), ...period }),
})

interface Of {
  id: number
  version: number
}
const of = { id: field.id().required(), version: field.version().required() }
export const moveBooking = endpoint<Of & { from: string; until: string }, Booking>({
  method: 'PATCH',
  path: '/api/bookings/:id',
  says: 'Book it for another time. What is handed out can only end at another time.',
  may: 'orders.edit',
  input: Joi.object<Of & { from: string; until: string }, true>({ ...of, ...period }),
})
export const cancelBooking = endpoint<Of, Booking>({
  method: 'POST',
  path: '/api/bookings/:id/cancel',
  says: 'Give up a booking that was not handed out.',
  may: 'orders.edit',
  input: Joi.object<Of, true>(of),
})
export const handOut = endpoint<Of & { to: string }, Booking>({
  method: 'POST',
  path: '/api/bookings/:id/hand-out',
  says: 'Hand it out to somebody.',
  may: 'orders.dispatch',
  input: Joi.object<Of & { to: string }, true>({ ...of, to: field.line(120).required() }),
})
export const giveBack = endpoint<Of & { note?: string }, Booking>({
  method: 'POST',
  path: '/api/bookings/:id/give-back',
  says: 'Take it back, with what is to be said of it.',
  may: 'orders.dispatch',
  input: Joi.object<Of & { note?: string }, true>({ ...of, note: field.line(300).allow('') }),
})
