import { DateTime } from 'luxon'
import type { DayStretch } from '#core/kit'
import { shiftOn, skillsLacking } from '#core/people'
import type { HeldSkill, ShiftException } from '#core/people'

/** A technician as dispatch sees one. */
export interface Candidate {
  tradeIds: number[]
  skills: readonly HeldSkill[]
  shift: DayStretch[][]
  /** Days on which they work otherwise. */
  exceptions?: ShiftException[]
  leave: { from: Date; to: Date }[]
  /** What they are already promised to, as planned times. */
  planned: { start: Date; end: Date }[]
}

export interface Wish {
  tradeId: number | null
  skills: readonly string[]
  start: Date
  end: Date
  zone: string
}

export interface Fitness {
  hasTrade: boolean
  /** What it asks for and they cannot do on that day, by name. */
  lacks: string[]
  onShift: boolean
  away: boolean
  /** Minutes of other visits within the wished time. */
  overlapMinutes: number
  /** Minutes planned on that local day. */
  loadMinutes: number
}

/** Says how well a technician fits a job at a time; judging is left to the person dispatching. */
export function fitnessOf(candidate: Candidate, wish: Wish): Fitness {
  const start = DateTime.fromJSDate(wish.start, { zone: wish.zone })
  const end = DateTime.fromJSDate(wish.end, { zone: wish.zone })
  const clock = (at: DateTime) => at.toFormat('HH:mm')
  const sameDay = start.hasSame(end, 'day')
  const onShift =
    sameDay &&
    shiftOn(candidate.shift, candidate.exceptions ?? [], start.toISODate()!, start.weekday).some(
      (stretch) => stretch.from <= clock(start) && clock(end) <= stretch.to,
    )
  const dayStart = start.startOf('day').toJSDate()
  const dayEnd = start.plus({ days: 1 }).startOf('day').toJSDate()
  return {
    hasTrade: wish.tradeId === null || candidate.tradeIds.includes(wish.tradeId),
    lacks: skillsLacking(candidate.skills, wish.skills, start.toISODate()!).map(({ name }) => name),
    onShift,
    away: candidate.leave.some((leave) => leave.from < wish.end && wish.start < leave.to),
    overlapMinutes: overlap(candidate.planned, wish.start, wish.end),
    loadMinutes: overlap(candidate.planned, dayStart, dayEnd),
  }
}

function overlap(planned: Candidate['planned'], from: Date, to: Date): number {
  const shared = planned.map(({ start, end }) => Math.min(end.getTime(), to.getTime()) - Math.max(start.getTime(), from.getTime()))
  return Math.round(shared.filter((part) => part > 0).reduce((sum, part) => sum + part, 0) / 60_000)
}
