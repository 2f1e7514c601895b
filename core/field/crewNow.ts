import { spell } from '#core/kit'
import { isOverdue } from './alone'

/** How long after a visit should have begun it is worth a call, and how long nobody hears of a running clock (our own choice, no source). */
export const LATE_BEGIN_MINUTES = 15
export const SILENT_MINUTES = 180

export interface CrewNow {
  /** What runs, and until when it was planned. */
  running: { since: Date; plannedEnd: Date } | null
  /** By when they were to say that they are all right, working alone. */
  checkInBy?: Date | null
  /** The earliest visit that has not begun. */
  next: { plannedStart: Date } | null
  /** When anything of theirs was heard of last; null where nothing was today. */
  heardAt: Date | null
}

export interface CrewSign {
  kind: 'alone' | 'over' | 'late' | 'silent'
  minutes: number
  /** "20 min over". */
  says: string
}

const minutesSince = (at: Date, now: Date): number => Math.floor((now.getTime() - at.getTime()) / 60_000)

/** What is worth a look of somebody in the field, the most pressing first. @param now at the desk */
export function crewSigns({ running, checkInBy = null, next, heardAt }: CrewNow, now: Date): CrewSign[] {
  const signs: CrewSign[] = []
  if (checkInBy && isOverdue(checkInBy, now)) {
    const minutes = minutesSince(checkInBy, now)
    signs.push({ kind: 'alone', minutes, says: `works alone, check-in ${spell(minutes)} overdue` })
  }
  const silent = running ? minutesSince(heardAt && heardAt > running.since ? heardAt : running.since, now) : 0
  if (silent >= SILENT_MINUTES) signs.push({ kind: 'silent', minutes: silent, says: `not heard of for ${spell(silent)}` })
  const over = running ? minutesSince(running.plannedEnd, now) : 0
  if (over > 0) signs.push({ kind: 'over', minutes: over, says: `${spell(over)} over` })
  const late = next ? minutesSince(next.plannedStart, now) : 0
  if (late >= LATE_BEGIN_MINUTES) signs.push({ kind: 'late', minutes: late, says: `should have begun ${spell(late)} ago` })
  return signs
}
