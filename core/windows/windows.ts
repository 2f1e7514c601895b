import { DateTime } from 'luxon'
import { isWorkingAt } from '#core/kit'
import type { Reason, WorkCalendar } from '#core/kit'

/** The time agreed with the person on site: from its first instant up to, and without, its last. */
export interface Window {
  from: Date
  until: Date
}

/** Times offered to somebody: they may still choose, have chosen, can be there at none of them, or need not choose any more. */
export const OFFER_STATES = ['open', 'chosen', 'none_fits', 'withdrawn'] as const
export type OfferState = (typeof OFFER_STATES)[number]
export const OFFER_STATE_NAMES: Record<OfferState, string> = { open: 'Not answered', chosen: 'Chosen', none_fits: 'None fits', withdrawn: 'Taken back' }

export const MOST_TIMES = 8
const LONGEST_HOURS = 24
const FURTHEST_DAYS = 366
const HOUR_MS = 3_600_000

/** Why this is no time to agree on; null when it is. @param field where it is said */
export function windowReason({ from, until }: Window, now: Date, field: string): Reason | null {
  if (until <= from) return { code: 'ends_before', sentence: 'It ends before it begins.', field }
  if (until.getTime() - from.getTime() > LONGEST_HOURS * HOUR_MS) return { code: 'too_long', sentence: 'Agree on a day at most.', field }
  if (until <= now) return { code: 'in_the_past', sentence: 'Choose a time that has not passed.', field }
  if (from.getTime() - now.getTime() > FURTHEST_DAYS * 24 * HOUR_MS) return { code: 'too_far', sentence: 'Choose a time within a year.', field }
  return null
}

/** Why these times cannot be offered: each has to be one to agree on, and no two begin at once. Empty when they can. */
export function offerReasons(times: readonly Window[], now: Date): Reason[] {
  if (!times.length) return [{ code: 'no_times', sentence: 'Offer at least one time.', field: 'times' }]
  return times.flatMap((time, at) => {
    const reason = windowReason(time, now, `times.${at}`)
    if (reason) return [reason]
    // Who chooses says when it begins.
    const twice = times.slice(0, at).some(({ from }) => from.getTime() === time.from.getTime())
    return twice ? [{ code: 'twice', sentence: 'Another of the times begins then already.', field: `times.${at}` }] : []
  })
}

/** Whether a time that was offered can still be taken: somebody may come until its end. */
export const isToCome = ({ until }: Window, now: Date): boolean => until > now

/** Whether a visit keeps to what was agreed: it begins within it. An arrival window (common practice). */
export const keepsTo = ({ from, until }: Window, start: Date): boolean => from <= start && start < until

const PARTS = [
  { hour: 9, hours: 3 },
  { hour: 13, hours: 3 },
]
const PROPOSED = 4
const LOOK_DAYS = 30

/**
 * Times to begin an offer with: mornings and afternoons of the next days on which the site works, from tomorrow on.
 * @param calendar of the site; its zone is that of the days
 * @returns four, fewer where a site works at none of these hours within a month
 */
export function proposedTimes(now: Date, calendar: WorkCalendar): Window[] {
  const proposed: Window[] = []
  const today = DateTime.fromJSDate(now, { zone: calendar.zone }).startOf('day')
  for (let day = 1; day <= LOOK_DAYS && proposed.length < PROPOSED; day++)
    for (const { hour, hours } of PARTS) {
      const from = today.plus({ days: day }).set({ hour })
      if (proposed.length < PROPOSED && isWorkingAt(from.toJSDate(), calendar)) proposed.push({ from: from.toJSDate(), until: from.plus({ hours }).toJSDate() })
    }
  return proposed
}

/** "Tue 24 Nov, 09:00 to 12:00", with both days where it runs past midnight. */
export function windowSays({ from, until }: Window, zone: string): string {
  const [a, b] = [from, until].map((at) => DateTime.fromJSDate(at, { zone }).setLocale('en-IE'))
  return `${a!.toFormat('ccc d LLL, HH:mm')} to ${a!.hasSame(b!, 'day') ? b!.toFormat('HH:mm') : b!.toFormat('ccc d LLL, HH:mm')}`
}
