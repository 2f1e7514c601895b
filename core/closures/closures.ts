import type { Reason } from '#core/kit'

/** From its first instant up to, and without, its last. */
export interface Span {
  from: Date
  until: Date
}

/** Out of use for a period, or given up before it began. */
export const CLOSURE_STATES = ['kept', 'called_off'] as const
export type ClosureState = (typeof CLOSURE_STATES)[number]

/** How far the bookings system has been told: not yet, of all of it, that it does not know the space, or that there is none to tell. */
export const TOLD_STATES = ['waiting', 'told', 'unknown', 'none'] as const
export type ToldState = (typeof TOLD_STATES)[number]

/** Where a closure stands at an instant. */
export type ClosureStanding = 'called_off' | 'ahead' | 'running' | 'over'
export const CLOSURE_STANDING_NAMES: Record<ClosureStanding, string> = { called_off: 'Called off', ahead: 'To come', running: 'Out of use', over: 'Over' }

/** So many bookings that fall into a closure are shown one by one, and kept with it. */
export const MOST_SHOWN = 200
const MOST_DAYS = 366
const DAY_MS = 86_400_000

export function closureStanding({ state, from, until }: Span & { state: ClosureState }, now: Date): ClosureStanding {
  if (state === 'called_off') return 'called_off'
  return now < from ? 'ahead' : now < until ? 'running' : 'over'
}

const meet = (a: Span, b: Span): boolean => a.from < b.until && b.from < a.until

/**
 * Why a space cannot be taken out of use for a period; empty when it can. Two orders may each need it at once.
 * @param same what the same order keeps of the same space already
 */
export function closureReasons({ from, until }: Span, same: readonly Span[], now: Date): Reason[] {
  if (until <= from) return [{ code: 'ends_before', sentence: 'It ends before it begins.', field: 'until' }]
  if (until <= now) return [{ code: 'in_the_past', sentence: 'Choose a time that has not passed.', field: 'until' }]
  if (until.getTime() - from.getTime() > MOST_DAYS * DAY_MS) return [{ code: 'too_long', sentence: 'Take it out of use for a year at most.', field: 'until' }]
  return same.some((other) => meet(other, { from, until }))
    ? [{ code: 'twice', sentence: 'This order has it out of use then already: change that instead.', field: 'from' }]
    : []
}

/** A booking of a space in the bookings system; what and who are not always told. */
export interface SpaceBooking extends Span {
  /** Names it, and the instant it begins: one that comes round is several. */
  key: string
  what: string | null
  who: string | null
  email: string | null
}

/**
 * The bookings that fall into a period, in the order of their beginning: those that are told of, and for the rest of the
 * busy time what is busy alone. Somebody may be allowed to see that a space is taken, and not by whom (RFC 4791, 6.1.1).
 * @param busy periods of a free-busy answer
 * @param told bookings with what they are
 * @param ours what closures of our own keep busy
 */
export function bookingsIn(period: Span, busy: readonly Span[], told: readonly SpaceBooking[], ours: readonly Span[]): SpaceBooking[] {
  const named = told.filter((one) => meet(one, period))
  const rest = busy
    .filter((one) => meet(one, period))
    .flatMap((one) => without(one, [...named, ...ours]))
    .filter((one) => meet(one, period))
    .map(({ from, until }) => ({ key: `busy ${from.toISOString()} ${until.toISOString()}`, from, until, what: null, who: null, email: null }))
  return [...named, ...rest].sort((a, b) => a.from.getTime() - b.from.getTime() || a.key.localeCompare(b.key))
}

/** What is left of a span once others are taken out of it. */
export function without(span: Span, others: readonly Span[]): Span[] {
  let left = [span]
  for (const other of others)
    left = left.flatMap((piece) =>
      !meet(piece, other)
        ? [piece]
        : [
            ...(piece.from < other.from ? [{ from: piece.from, until: other.from }] : []),
            ...(other.until < piece.until ? [{ from: other.until, until: piece.until }] : []),
          ],
    )
  return left
}

/** Those nobody has seen yet: they were booked after the others were shown. @param seen keys of what was shown */
export const unseen = (bookings: readonly SpaceBooking[], seen: readonly string[]): SpaceBooking[] => bookings.filter(({ key }) => !seen.includes(key))

/** How a closure ends when the work is done or given up: sooner when it runs, called off when it had not begun, null when it is over. */
export function endedSooner({ state, from, until }: Span & { state: ClosureState }, now: Date): { state: ClosureState; until: Date } | null {
  if (state === 'called_off' || until <= now) return null
  return from >= now ? { state: 'called_off', until } : { state: 'kept', until: now }
}

const MINUTE_MS = 60_000
const LONGEST_WAIT_MINUTES = 30

/** How long to wait before the bookings system is told again, in milliseconds: a minute after the first try, doubled each time, half an hour at most. */
export const waitBefore = (attempts: number): number => Math.min(LONGEST_WAIT_MINUTES, 2 ** Math.max(0, attempts - 1)) * MINUTE_MS
