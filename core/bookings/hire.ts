import type { Minor } from '#core/kit'
import type { Period } from './bookings'

const DAY_MS = 86_400_000

/** The days equipment is charged for: each day of 24 hours that has begun, one at the least (common practice of hire). */
export const hireDays = ({ from, until }: Period): number => Math.max(1, Math.ceil((until.getTime() - from.getTime()) / DAY_MS))

/** What they cost, in minor units. @param perDayMinor the rate of the piece when it was handed out, zero or more */
export const hireCost = (period: Period, perDayMinor: Minor): Minor => hireDays(period) * perDayMinor
