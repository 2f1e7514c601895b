import type { Reason } from '#core/kit'

/** Kept for an order, with it, given back; or given up before it was handed out. */
export const BOOKING_STATES = ['booked', 'out', 'back', 'cancelled'] as const
export type BookingState = (typeof BOOKING_STATES)[number]
export const BOOKING_STATE_NAMES: Record<BookingState, string> = { booked: 'Booked', out: 'Handed out', back: 'Given back', cancelled: 'Given up' }

/** From its first instant up to, and without, its last. */
export interface Period {
  from: Date
  until: Date
}
export const MOST_BOOKED_DAYS = 366
const DAY_MS = 86_400_000

/** Whether two periods share an instant: one that begins when another ends does not. */
export const overlaps = (a: Period, b: Period): boolean => a.from < b.until && b.from < a.until

/** Another booking of the same piece of equipment. */
export interface OtherBooking extends Period {
  id: number
  state: BookingState
  orderNumber: string
}

/**
 * The bookings that are in the way of a period: those that are kept or with somebody then. What is with somebody stays in
 * the way until it is given back, however late that is. @param now what is out past its end ends no sooner than now
 */
export function clashesWith<Other extends OtherBooking>(period: Period, others: readonly Other[], now: Date): Other[] {
  return others.filter(({ state, from, until }) => {
    if (state !== 'booked' && state !== 'out') return false
    const end = state === 'out' && until < now ? now : until
    return overlaps(period, { from, until: end })
  })
}

/** Whether something handed out should be back. */
export const isLate = ({ state, until }: { state: BookingState; until: Date }, now: Date): boolean => state === 'out' && until < now

interface Asked extends Period {
  /** The day until which its inspection is valid, that day among them, "2026-11-26"; null where it needs none. */
  inspectedUntil: string | null
  /** The day the period ends on at the site. */
  lastDay: string
}

/** Why a piece of equipment cannot be booked for a period; empty when it can. @param others as `clashesWith` found them */
export function bookingReasons({ from, until, inspectedUntil, lastDay }: Asked, clashes: readonly OtherBooking[]): Reason[] {
  if (until <= from) return [{ code: 'ends_before', sentence: 'It would be given back before it is taken.', field: 'until' }]
  if (until.getTime() - from.getTime() > MOST_BOOKED_DAYS * DAY_MS) return [{ code: 'too_long', sentence: 'Book it for a year at most.', field: 'until' }]
  return [
    ...clashes.map(({ orderNumber, state }) => ({
      code: 'clash',
      sentence: state === 'out' ? `${orderNumber} has it then.` : `It is booked for ${orderNumber} then.`,
      field: 'from',
    })),
    ...(inspectedUntil !== null && inspectedUntil < lastDay
      ? [
          {
            code: 'inspection',
            sentence: `Its inspection is valid until ${inspectedUntil}: have it inspected first, or book it for a shorter time.`,
            field: 'until',
          },
        ]
      : []),
  ]
}

/** Why it cannot be handed out now; empty when it can. @param today the day it is at the site */
export function handOutReasons(booking: { state: BookingState; inspectedUntil: string | null }, today: string, withOther: string | null): Reason[] {
  if (booking.state !== 'booked') return [{ code: 'wrong_state', sentence: `It is ${BOOKING_STATE_NAMES[booking.state].toLowerCase()} already.` }]
  return [
    ...(withOther ? [{ code: 'out', sentence: `${withOther} has it still: take it back first.` }] : []),
    ...(booking.inspectedUntil !== null && booking.inspectedUntil < today
      ? [{ code: 'inspection', sentence: `Its inspection ended on ${booking.inspectedUntil}: nobody may use it.` }]
      : []),
  ]
}
