import { refuse } from '#core/kit'

/** What was recorded on a phone longer ago is not taken by itself any more (our own choice, no source). */
export const LONGEST_WITHOUT_SIGNAL_DAYS = 30
/** What arrives within this is as good as told at once. */
const AT_ONCE_MS = 60_000

/**
 * When something on a job happened: as the phone says that recorded it, and now where none says. A phone whose clock
 * runs ahead never makes it happen after it was heard of.
 *
 * @throws Refusal when it was too long ago
 */
export function momentOf(happenedAt: Date | null, now: Date): Date {
  if (!happenedAt || happenedAt > now) return now
  if (now.getTime() - happenedAt.getTime() > LONGEST_WITHOUT_SIGNAL_DAYS * 86_400_000)
    refuse('too_long_ago', `That was more than ${LONGEST_WITHOUT_SIGNAL_DAYS} days ago. Tell the desk what you did.`, 'happenedAt')
  return happenedAt
}

/** Whether it was told of so much later that the difference is worth saying. */
export const isHeardLater = (at: Date, now: Date): boolean => now.getTime() - at.getTime() > AT_ONCE_MS
