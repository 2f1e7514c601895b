/** Which jobs of a technician are looked at. */
export const ROUND_RANGES = ['today', 'tomorrow', 'week'] as const
export type RoundRange = (typeof ROUND_RANGES)[number]

interface Row {
  visitState: string
  plannedStart: string
}

/**
 * Jobs of one range of days, in the order of the plan. What is still open from before, or begun early, belongs to today until it is left.
 *
 * @param days of the site, as "2026-11-23": the first and last of the range, and today
 * @param dayOf the day of an instant, at the site
 */
export function jobsOn<Job extends Row>(jobs: readonly Job[], days: { from: string; to: string; today: string }, dayOf: (instant: string) => string): Job[] {
  const isWithin = (day: string) => days.from <= day && day <= days.to
  const isDueToday = (job: Job) => job.visitState === 'on_site' || (job.visitState !== 'ended' && dayOf(job.plannedStart) < days.today)
  return jobs.filter((job) => isWithin(dayOf(job.plannedStart)) || (isWithin(days.today) && isDueToday(job)))
}

/** Jobs of the first day after today that has any. */
export function nextDay<Job extends Row>(jobs: readonly Job[], today: string, dayOf: (instant: string) => string): Job[] {
  const later = jobs.filter(({ plannedStart }) => dayOf(plannedStart) > today)
  const first = later.map(({ plannedStart }) => dayOf(plannedStart)).sort()[0]
  return later.filter(({ plannedStart }) => dayOf(plannedStart) === first)
}

interface Facts extends Row {
  visitId: number
  plannedEnd: string
  summary: string
  placeCode: string | null
  priority: string | null
}

/** What of a job somebody has seen, so that it shows when it is another. */
export const seenAs = ({ plannedStart, plannedEnd, summary, placeCode, priority }: Facts): string =>
  JSON.stringify([plannedStart, plannedEnd, summary, placeCode, priority])

const SAID = ['time', 'time', 'what', 'where', 'priority'] as const

/**
 * What is new to somebody, by the jobs they have seen.
 * @returns null for nothing, an empty list for a job they have not seen at all, else what changed
 */
export function newsOf(job: Facts, seen: string | undefined): (typeof SAID)[number][] | null {
  if (seen === undefined) return []
  const [before, now] = [JSON.parse(seen) as unknown[], JSON.parse(seenAs(job)) as unknown[]]
  const changed = SAID.filter((_, index) => before[index] !== now[index])
  return changed.length ? [...new Set(changed)] : null
}

/**
 * The way to each job of a list in the order of the plan, in minutes: from the job before it on that day, the first from
 * where the day begins. Null where one of the two is not known, and nothing within one place.
 *
 * @param way minutes between two places, by their paths
 */
export function waysOnDays(
  jobs: readonly { day: string; path: string | null }[],
  home: string | null,
  way: (from: string | null, to: string | null) => number,
): (number | null)[] {
  return jobs.map(({ day, path }, index) => {
    const before = jobs[index - 1]
    const from = before?.day === day ? before.path : home
    if (!from || !path) return null
    return from === path ? 0 : way(from, path)
  })
}
