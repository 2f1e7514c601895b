import { refuse } from '#core/kit'

/** A clock that has run longer than this was forgotten: nobody is charged for it without a word (our own choice, no source). */
export const LONGEST_STINT_MINUTES = 14 * 60

export const isForgotten = (startAt: Date, now: Date): boolean => now.getTime() - startAt.getTime() > LONGEST_STINT_MINUTES * 60_000

/**
 * When a stint ended: now, or when whoever forgot the clock says that they stopped. A clock that was set back
 * meanwhile never makes a stint end before it began.
 *
 * @throws Refusal when the clock was forgotten and nobody says when, or what is said cannot be
 */
export function endOfStint(startAt: Date, now: Date, stoppedAt: Date | null): Date {
  if (stoppedAt) {
    if (stoppedAt < startAt) refuse('stopped_before', 'You started after that. Say when you stopped.', 'stoppedAt')
    if (stoppedAt > now) refuse('stopped_later', 'That is still to come. Say when you stopped.', 'stoppedAt')
    if (isForgotten(startAt, stoppedAt)) refuse('stint_too_long', 'Nobody works for fourteen hours on end. Say when you stopped.', 'stoppedAt')
    return stoppedAt
  }
  if (isForgotten(startAt, now)) refuse('clock_forgotten', 'The clock has run for more than fourteen hours. Stop it and say when you did stop.', 'stoppedAt')
  return now < startAt ? startAt : now
}
