import { DateTime } from 'luxon'
import type { Reason } from '#core/kit'

/** Who is on call in turn: the first from the start day on, each for so many days, handed over at a clock time. */
export interface Rota {
  /** Technicians in the order of their turns; somebody may have more than one. */
  memberIds: readonly number[]
  /** The day of the first handover, ISO 8601. */
  startDay: string
  turnDays: number
  /** "08:00", by the clock of the site. */
  handover: string
}
/** Somebody else for a while. */
export interface Swap {
  from: Date
  until: Date
  technicianId: number
}
export interface OnCall {
  from: Date
  until: Date
  technicianId: number
  /** It is not their turn: they stand in. */
  swapped: boolean
}

export const MOST_MEMBERS = 26
export const MOST_TURN_DAYS = 28
const LONGEST_SWAP_DAYS = 92

/** Why a rota cannot be kept; empty when it can. */
export function rotaReasons({ memberIds, startDay, turnDays, handover }: Rota): Reason[] {
  return [
    ...(memberIds.length > MOST_MEMBERS ? [{ code: 'too_many', sentence: `At most ${MOST_MEMBERS} turns.`, field: 'memberIds' }] : []),
    ...(DateTime.fromISO(startDay).isValid ? [] : [{ code: 'no_day', sentence: 'Say on which day the first turn begins.', field: 'startDay' }]),
    ...(Number.isInteger(turnDays) && turnDays >= 1 && turnDays <= MOST_TURN_DAYS
      ? []
      : [{ code: 'turn_days', sentence: `A turn lasts 1 to ${MOST_TURN_DAYS} days.`, field: 'turnDays' }]),
    ...(/^([01]\d|2[0-3]):[0-5]\d$/.test(handover) ? [] : [{ code: 'no_clock', sentence: 'Write the hour like 08:00.', field: 'handover' }]),
  ]
}

/** Why somebody cannot stand in for that while; empty when they can. */
export function swapReasons({ from, until }: Pick<Swap, 'from' | 'until'>): Reason[] {
  if (until <= from) return [{ code: 'ends_before', sentence: 'It ends before it begins.', field: 'until' }]
  return until.getTime() - from.getTime() > LONGEST_SWAP_DAYS * 86_400_000
    ? [{ code: 'too_long', sentence: 'Somebody stands in for three months at most: change the rota instead.', field: 'until' }]
    : []
}

/**
 * Who is on call between two instants, in order, without gaps from the first handover on; a turn is as long as the clocks
 * say, so that it is handed over at the same hour all year round.
 * @param zone of the site
 */
export function onCallBetween(rota: Rota, swaps: readonly Swap[], from: Date, until: Date, zone: string): OnCall[] {
  const { memberIds, turnDays } = rota
  if (!memberIds.length || until <= from) return []
  const [hour, minute] = rota.handover.split(':').map(Number)
  const first = DateTime.fromISO(rota.startDay, { zone })
  const turnAt = (turn: number) =>
    first
      .plus({ days: turn * turnDays })
      .set({ hour, minute })
      .toJSDate()
  const spans: OnCall[] = []
  let turn = Math.max(0, Math.floor(DateTime.fromJSDate(from, { zone }).diff(first, 'days').days / turnDays) - 1)
  for (; turnAt(turn) < until; turn++) {
    const span = { from: later(turnAt(turn), from), until: sooner(turnAt(turn + 1), until) }
    if (span.from < span.until) spans.push({ ...span, technicianId: memberIds[turn % memberIds.length]!, swapped: false })
  }
  // What was said last of a while holds.
  return joined(swaps.reduce<OnCall[]>(laidOver, spans))
}

const later = (a: Date, b: Date) => (a > b ? a : b)
const sooner = (a: Date, b: Date) => (a < b ? a : b)

function laidOver(spans: OnCall[], swap: Swap): OnCall[] {
  return spans.flatMap((span) => {
    const over = { from: later(span.from, swap.from), until: sooner(span.until, swap.until) }
    if (over.from >= over.until) return [span]
    return [
      { ...span, until: over.from },
      { ...over, technicianId: swap.technicianId, swapped: true },
      { ...span, from: over.until },
    ].filter((one) => one.from < one.until)
  })
}

/** Neighbours with the same person become one. */
function joined(spans: OnCall[]): OnCall[] {
  const all: OnCall[] = []
  for (const span of spans) {
    const last = all.at(-1)
    if (last && last.technicianId === span.technicianId && last.swapped === span.swapped && last.until.getTime() === span.from.getTime())
      last.until = span.until
    else all.push({ ...span })
  }
  return all
}
