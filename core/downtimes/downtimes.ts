import { refuse } from '#core/kit'

/** When an asset could not be used; without an end, it cannot be used now. */
export interface Downtime {
  fromAt: Date
  untilAt: Date | null
}

/** A phone’s clock may be a little ahead. */
const CLOCK_SLACK_MS = 60_000

const endOf = ({ untilAt }: Downtime): number => untilAt?.getTime() ?? Infinity

/**
 * @param others what is written down of the same asset already
 * @throws Refusal at the field: it ends before it begins, begins or ends in the future, or lies over another
 */
export function refuseDowntime(said: Downtime, others: readonly Downtime[], now: Date): void {
  const latest = new Date(now.getTime() + CLOCK_SLACK_MS)
  if (said.fromAt > latest) refuse('in_future', 'Say since when it cannot be used: now, or earlier.', 'fromAt')
  if (said.untilAt && said.untilAt <= said.fromAt) refuse('ends_before', 'It ends after it begins.', 'untilAt')
  if (said.untilAt && said.untilAt > latest) refuse('in_future', 'Say until when it could not be used once it is back.', 'untilAt')
  const over = others.find((one) => one.fromAt.getTime() < endOf(said) && endOf(one) > said.fromAt.getTime())
  if (over) refuse('downtime_over', over.untilAt ? 'That time is written down already.' : 'It is written down as out of use already.', 'fromAt')
}

/** How many whole minutes of a period an asset could not be used; periods do not lie over each other. */
export function minutesDown(downtimes: readonly Downtime[], from: Date, until: Date): number {
  const within = downtimes.map((one) => Math.min(endOf(one), until.getTime()) - Math.max(one.fromAt.getTime(), from.getTime()))
  return Math.floor(within.reduce((sum, ms) => sum + Math.max(0, ms), 0) / 60_000)
}
