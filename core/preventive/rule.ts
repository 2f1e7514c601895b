import { DateTime } from 'luxon'

/** How many days before it is due work is made ready: one week. Common practice, no source. */
export const USUAL_LEAD_DAYS = 7

const UNITS: Record<string, string> = { DAILY: 'day', WEEKLY: 'week', MONTHLY: 'month', YEARLY: 'year' }

/** How often a rule of RFC 5545 comes round: each so many days, weeks, months or years. Null for one that is told otherwise. */
export function frequencyOf(rule: string): { every: number; unit: string } | null {
  const part = (name: string) => new RegExp(`(?:^|;)${name}=([^;]+)`).exec(rule)?.[1]
  const unit = UNITS[part('FREQ') ?? '']
  return unit ? { every: Number(part('INTERVAL') ?? 1), unit } : null
}

/** The rule of what comes every so many days, weeks, months or years. @param unit "day", "week", "month" or "year" */
export function ruleOf(every: number, unit: string): string {
  const frequency = Object.keys(UNITS).find((one) => UNITS[one] === unit)
  return `FREQ=${frequency};INTERVAL=${every}`
}

/** The first day a plain rule comes to from a day on; that of its start where it has not begun. Null for a rule told otherwise. */
export function firstFrom(rule: string, startsOn: string, day: string): string | null {
  const comes = frequencyOf(rule)
  if (!comes) return null
  const [start, from] = [DateTime.fromISO(startsOn, { zone: 'utc' }), DateTime.fromISO(day, { zone: 'utc' })]
  // From its start each time: a month is not the same length twice, and the 31st stays the 31st.
  let turn = Math.max(0, Math.floor(from.diff(start, `${comes.unit}s` as 'days').get(`${comes.unit}s` as 'days') / comes.every) - 1)
  for (;;) {
    const at = start.plus({ [comes.unit]: turn * comes.every })
    if (at >= from) return at.toISODate()
    turn++
  }
}

/** "every 3 months"; the rule itself where it cannot be said so. */
export function ruleSays(rule: string): string {
  const found = frequencyOf(rule)
  if (!found) return rule
  return found.every === 1 ? `every ${found.unit}` : `every ${found.every} ${found.unit}s`
}
