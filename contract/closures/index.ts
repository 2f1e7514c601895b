import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { ClosureStanding, ToldState } from '#core/closures'

/** A booking that falls into a period. What and who are null where the bookings system does not tell. */
export interface AffectedBooking {
  key: string
  from: Instant
  until: Instant
  what: string | null
  who: string | null
  email: string | null
  /** Made after it was taken out of use. */
  since?: boolean
}

export interface Closure {
  id: number
  version: number
  place: { id: number; code: string; name: string }
  order: { id: number; number: string; summary: string }
  from: Instant
  until: Instant
  /** When it was to end, where it ended or will end sooner. */
  plannedUntil: Instant | null
  reason: string
  standing: ClosureStanding
  /** Bookings it was known to fall into when it was made, and those made since. */
  affects: AffectedBooking[]
  told: ToldState
  toldAt: Instant | null
  /** Why the bookings system could not be told, while it could not. */
  problem: string | null
  /** Occupants are told at the Counter. */
  atCounter: boolean
  by: string
}

export interface OrderClosures {
  rows: Closure[]
  /** The space of the order, if it stands in one: proposed for the next. */
  place: { id: number; code: string; name: string } | null
  /** The time agreed, or planned, or the next working day: proposed for the next. */
  proposed: { from: Instant; until: Instant }
  /** Whether there is a bookings system to ask and tell. */
  connected: boolean
  mayClose: boolean
}
export const readOrderClosures = endpoint<{ orderId: number }, OrderClosures>({
  method: 'GET',
  path: '/api/orders/:orderId/closures',
  says: 'Spaces taken out of use for an order.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>({ orderId: field.id().required() }),
})
export const listPlaceClosures = endpoint<{ placeId: number }, { rows: Closure[] }>({
  method: 'GET',
  path: '/api/places/:placeId/closures',
  says: 'When a space is and was out of use, and for which orders.',
  may: 'desk.read',
  input: Joi.object<{ placeId: number }, true>({ placeId: field.id().required() }),
})

/** What the bookings system says of a space: its bookings, that it does not know the space, that it does not answer, or that there is none. */
export interface SpaceBookings {
  said: 'bookings' | 'unknown' | 'silent' | 'none'
  /** The first of them, in the order of their beginning. */
  bookings: AffectedBooking[]
  /** How many there are in all. */
  total: number
}
interface Period {
  from: string
  until: string
}
const period = { from: field.instant().required(), until: field.instant().required() }
export const checkSpace = endpoint<Period & { placeId: number }, SpaceBookings>({
  method: 'GET',
  path: '/api/places/:placeId/bookings',
  says: 'What is booked in a space in a period, by the bookings system.',
  may: 'desk.read',
  input: Joi.object<Period & { placeId: number }, true>({ placeId: field.id().required(), ...period }),
})
export const readSpaceFree = endpoint<{ orderId: number }, SpaceBookings & { at: { from: Instant; until: Instant } | null }>({
  method: 'GET',
  path: '/api/orders/:orderId/space',
  says: 'What is booked in the space of an order while somebody is planned to be there.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>({ orderId: field.id().required() }),
})

const seen = Joi.array().items(Joi.string().max(400)).max(500)
interface Making extends Period {
  orderId: number
  placeId: number
  reason: string
  seen?: string[]
  notice?: { title: string; body: string }
}
export const closeSpace = endpoint<Making, OrderClosures>({
  method: 'POST',
  path: '/api/orders/:orderId/closures',
  says: 'Take a space out of use for an order. Bookings in it that nobody has seen yet are shown instead.',
  may: 'orders.edit',
  input: Joi.object<Making, true>({
    orderId: field.id().required(),
    placeId: field.id().required(),
    ...period,
    reason: field.line(200).required(),
    /** The bookings that were shown. */
    seen,
    /** What occupants are told at the Counter. */
    notice: Joi.object({ title: field.line().required(), body: field.words(2000).allow('').required() }),
  }),
})
interface Of {
  id: number
  version: number
}
const of = { id: field.id().required(), version: field.version().required() }
export const moveClosure = endpoint<Of & Period & { seen?: string[] }, OrderClosures>({
  method: 'PATCH',
  path: '/api/closures/:id',
  says: 'Change when a space is out of use. What runs can only end at another time.',
  may: 'orders.edit',
  input: Joi.object<Of & Period & { seen?: string[] }, true>({ ...of, ...period, seen }),
})
export const endClosure = endpoint<Of, OrderClosures>({
  method: 'POST',
  path: '/api/closures/:id/end',
  says: 'Give a space back now, or call it off where it has not begun.',
  may: 'orders.edit',
  input: Joi.object<Of, true>(of),
})
