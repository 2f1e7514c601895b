import { addWorkingTime, workingMinutesBetween } from '#core/kit'
import type { WorkCalendar } from '#core/kit'

/** A clock that runs always, or only in working hours. */
export const TARGET_CLOCKS = ['continuous', 'working'] as const
export type TargetClock = (typeof TARGET_CLOCKS)[number]

/** What a priority promises: minutes on a clock that runs always or only in working hours. */
export interface TargetRule {
  clock: TargetClock
  responseMinutes: number
  completionMinutes: number
}

/** A promise made: instants that move only when the clock is stopped and started again. */
export interface Target {
  clock: TargetClock
  startAt: Date
  responseDueAt: Date
  /** From here on the target counts as close. */
  closeAt: Date
  completionDueAt: Date
  /** Set while a hold stops the clock. */
  stoppedAt: Date | null
}

export const TARGET_STANDINGS = ['past', 'close', 'on_time'] as const
export type TargetStanding = (typeof TARGET_STANDINGS)[number]

/** How the moment asked about stands to an instant of the promise. */
export type StandingTest = readonly ['>' | '>=' | '<' | '<=', 'closeAt' | 'completionDueAt']
/** What each standing means, once for `standingAt` here and for lists and counts in SQL: all of its tests hold. */
export const STANDING_TESTS: Record<TargetStanding, readonly StandingTest[]> = {
  past: [['>', 'completionDueAt']],
  close: [
    ['>=', 'closeAt'],
    ['<=', 'completionDueAt'],
  ],
  on_time: [
    ['<', 'closeAt'],
    ['<=', 'completionDueAt'],
  ],
}

export interface TargetState {
  standing: TargetStanding
  /** Time used over time promised; above 1 when past. */
  usedShare: number
  /** Where the response target stands on the same scale, 0 to 1. */
  responseShare: number
  /** Minutes left on the target's own clock; negative when past. */
  remainingMinutes: number
  /** When it will be missed if nothing stops the clock; null while stopped or finished. */
  missedAt: Date | null
}

/** The share of the promised time after which a target is close: three quarters, our choice. */
export const CLOSE_SHARE = 0.75

/** Makes the promise of a rule, counted from `start`. */
export function setTarget(rule: TargetRule, start: Date, calendar: WorkCalendar): Target {
  const after = (minutes: number) => later(rule.clock, start, minutes, calendar)
  return {
    clock: rule.clock,
    startAt: start,
    responseDueAt: after(rule.responseMinutes),
    closeAt: after(Math.round(rule.completionMinutes * CLOSE_SHARE)),
    completionDueAt: after(rule.completionMinutes),
    stoppedAt: null,
  }
}

/** Stops the clock. Stopping a stopped clock changes nothing. */
export function stopTarget(target: Target, at: Date): Target {
  return target.stoppedAt ? target : { ...target, stoppedAt: at }
}

/** Starts the clock again: every instant still ahead moves by what was left of it when it stopped. */
export function resumeTarget(target: Target, at: Date, calendar: WorkCalendar): Target {
  const stopped = target.stoppedAt
  if (!stopped) return target
  const shift = (due: Date) => (due <= stopped ? due : later(target.clock, at, between(target.clock, stopped, due, calendar), calendar))
  return {
    ...target,
    responseDueAt: shift(target.responseDueAt),
    closeAt: shift(target.closeAt),
    completionDueAt: shift(target.completionDueAt),
    stoppedAt: null,
  }
}

/** How a promise stands at `now`, or at the moment it was finished or its clock was stopped. */
export function targetState(target: Target, finishedAt: Date | null, now: Date, calendar: WorkCalendar): TargetState {
  const at = finishedAt ?? target.stoppedAt ?? now
  const remaining = between(target.clock, at, target.completionDueAt, calendar)
  const promised = between(target.clock, target.startAt, target.completionDueAt, calendar)
  const toResponse = between(target.clock, target.startAt, target.responseDueAt, calendar)
  return {
    standing: standingAt(target, at),
    usedShare: promised > 0 ? (promised - remaining) / promised : 1,
    responseShare: promised > 0 ? Math.min(1, toResponse / promised) : 0,
    remainingMinutes: Math.round(remaining),
    missedAt: finishedAt || target.stoppedAt || at >= target.completionDueAt ? null : target.completionDueAt,
  }
}

/** On time, close or past, from the instants alone. */
export function standingAt(target: Pick<Target, 'closeAt' | 'completionDueAt'>, at: Date): TargetStanding {
  const holds = ([how, edge]: StandingTest) => COMPARE[how](at.getTime(), target[edge].getTime())
  return TARGET_STANDINGS.find((standing) => STANDING_TESTS[standing].every(holds))!
}

const COMPARE: Record<StandingTest[0], (a: number, b: number) => boolean> = {
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
}

function later(clock: Target['clock'], start: Date, minutes: number, calendar: WorkCalendar): Date {
  return clock === 'working' ? addWorkingTime(start, minutes, calendar) : new Date(start.getTime() + minutes * 60_000)
}

function between(clock: Target['clock'], a: Date, b: Date, calendar: WorkCalendar): number {
  return clock === 'working' ? workingMinutesBetween(a, b, calendar) : (b.getTime() - a.getTime()) / 60_000
}
