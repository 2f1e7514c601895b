import type { Stretch } from './board'

/** Whole ones, the last begun one not counted. */
export const minutesBetween = (from: Date, until: Date): number => Math.floor((until.getTime() - from.getTime()) / 60_000)

/**
 * The hours of somebody within a time: at work by shift without leave, planned, promised to somebody, and free, which is what
 * of the shifts nothing is planned in.
 * @returns whole minutes, none below nought
 */
export function loadOf(
  { shifts, away }: { shifts: readonly Stretch[]; away: readonly Stretch[] },
  visits: readonly (Stretch & { promised: boolean })[],
  within: Stretch,
): { shiftMinutes: number; plannedMinutes: number; promisedMinutes: number; freeMinutes: number } {
  const minutesOf = (all: readonly Stretch[]) =>
    merged(all.flatMap((one) => cut(one, within))).reduce((sum, { from, until }) => sum + minutesBetween(from, until), 0)
  const working = shifts.reduce<Stretch[]>((all, shift) => [...all, ...without(shift, away)], [])
  const free = working.reduce<Stretch[]>((all, stretch) => [...all, ...without(stretch, visits)], [])
  return {
    shiftMinutes: minutesOf(working),
    plannedMinutes: minutesOf(visits),
    promisedMinutes: minutesOf(visits.filter(({ promised }) => promised)),
    freeMinutes: minutesOf(free),
  }
}

const cut = (one: Stretch, within: Stretch): Stretch[] => {
  const [from, until] = [one.from < within.from ? within.from : one.from, one.until > within.until ? within.until : one.until]
  return from < until ? [{ from, until }] : []
}
/** What is left of a stretch once others are taken out of it. */
export const without = (whole: Stretch, others: readonly Stretch[]): Stretch[] =>
  others.reduce<Stretch[]>(
    (left, other) =>
      left.flatMap((one) => [
        ...cut(one, { from: one.from, until: other.from < one.until ? other.from : one.until }),
        ...cut(one, { from: other.until > one.from ? other.until : one.from, until: one.until }),
      ]),
    [whole],
  )
/** The same time in as few stretches as there can be. */
function merged(all: readonly Stretch[]): Stretch[] {
  const found: Stretch[] = []
  for (const one of [...all].sort((a, b) => a.from.getTime() - b.from.getTime())) {
    const last = found.at(-1)
    if (last && one.from <= last.until) found[found.length - 1] = { from: last.from, until: one.until > last.until ? one.until : last.until }
    else found.push(one)
  }
  return found
}
