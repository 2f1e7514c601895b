import { DateTime } from 'luxon'

/** "2026-11" for an instant, as a calendar in that zone shows it. */
export const monthOf = (at: Date, zone: string) => DateTime.fromJSDate(at, { zone }).toFormat('yyyy-LL')
