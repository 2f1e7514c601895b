import type { Priority } from '#core/requests'
import type { PlanWeights } from './weights'

/**
 * What a plan is computed from. Times are whole minutes from its origin, which is midnight at the site on the first day;
 * places, technicians and jobs are named by where they stand in their lists.
 */
export interface PlanProblem {
  jobs: PlanJob[]
  technicians: PlanTechnician[]
  /** Each time somebody is at work, one after another: what is planned of it is one route. */
  duties: PlanDuty[]
  /** Minutes from one place to another, by place and place; not the same both ways. */
  travel: number[][]
  /** When working time runs on the clock of targets that stops at night, as stretches in order. */
  working: { from: number; until: number }[]
  /** When work can begin after the days planned: what is left unplanned is as late as if it began then. */
  afterwards: number
  /** Nothing begins before: now, once the first day has begun. */
  notBefore: number
  weights: PlanWeights
}

export interface PlanTechnician {
  /** Minor units of the site’s money. */
  normalPerHour: number
  overtimePerHour: number
}

export interface PlanDuty {
  technician: number
  from: number
  until: number
  /** Up to so many minutes may be worked beyond its end. */
  overtime: number
  /** Where it begins and ends; null where that is not known, and no way is counted. */
  start: number | null
  end: number | null
  /** What stays as it is, in order: what runs, leave, meetings. None lies over another. */
  blocks: PlanBlock[]
}
export interface PlanBlock {
  from: number
  until: number
  /** Where it is; null where that is nobody’s business. */
  place: number | null
}

export interface PlanJob {
  place: number | null
  /** For how long whoever goes is there, from one step on. */
  minutes: number
  /** How many go at once, from one on. */
  people: number
  priority: Priority | null
  /** Who may do it: trade, skills and certificates. */
  able: number[]
  /** Not before: parts, permits, access, now. */
  earliest: number
  /** Agreed with somebody: it begins within, both ends included. */
  window: { from: number; until: number } | null
  /** By when it has to be over; below nought before the origin. Null where nothing was promised. */
  target: number | null
  /** Whether the clock of its target runs at night, too. */
  always: boolean
  /** Minutes it is past its target at the origin already, on the clock of the target. */
  lateAtOrigin: number
  /** Who knows its asset. */
  known: number[]
  /** How it is planned now. */
  now: { start: number; technicians: number[]; promised: boolean } | null
}

/** When a job begins, and who goes. */
export interface PlannedJob {
  start: number
  technicians: number[]
}
/** For each job what is planned of it, null where nothing is. */
export type Schedule = (PlannedJob | null)[]

/** Starts are on whole steps of so many minutes. */
export const PLAN_STEP_MINUTES = 5
/** What somebody was promised, and what several do together, begins on a quarter of an hour. */
export const PROMISE_STEP_MINUTES = 15
