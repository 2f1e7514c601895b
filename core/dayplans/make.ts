import { PRIORITIES } from '#core/requests'
import type { Priority } from '#core/requests'
import type { Column } from './master'
import type { PlanProblem, Schedule } from './model'
import { movesOf, standingPlan } from './moves'
import type { PlanMove } from './moves'
import { Pricer } from './price'
import { Ready, sumOf } from './ready'
import type { Terms } from './ready'
import { searchPlan } from './search'
import type { SearchLimits } from './search'
import { varied } from './whatIf'
import type { WhatIf } from './whatIf'

/** A plan in figures, so that two can be held side by side. */
export interface PlanFigures {
  /** Weighted minutes, all terms together. */
  cost: number
  terms: Terms
  /** Jobs that end past their target, those left as if begun afterwards, and by how many minutes on its clock together. */
  lateJobs: number
  lateMinutes: number
  travelMinutes: number
  overtimeMinutes: number
  /** What work, ways and overtime cost in minor units. */
  costMinor: number
  planned: number
  unplanned: Record<Priority, number>
}
export interface MadePlan {
  plan: Schedule
  moves: PlanMove[]
  now: PlanFigures
  then: PlanFigures
  /** What inserting one job after another from nothing would cost. */
  inserted: number
  rounds: number
  /** The same with something else about it, in the order asked for. */
  whatIf: PlanFigures[]
  columns: Column[]
}

export function figuresOf(problem: PlanProblem, schedule: Schedule): PlanFigures {
  const ready = new Ready(problem)
  const pricer = new Pricer(problem)
  const terms = pricer.terms(schedule)
  const unplanned = Object.fromEntries(PRIORITIES.map((priority) => [priority, 0])) as Record<Priority, number>
  let [lateJobs, lateMinutes] = [0, 0]
  schedule.forEach((one, j) => {
    const job = problem.jobs[j]!
    if (!one) unplanned[job.priority ?? 'routine']++
    const late = ready.lateMinutes(j, (one?.start ?? problem.afterwards) + job.minutes)
    if (late > 0) lateJobs++
    lateMinutes += late
  })
  return { cost: sumOf(terms), terms, lateJobs, lateMinutes, ...pricer.minutes(schedule), planned: schedule.filter((one) => one).length, unplanned }
}

/** A plan, held against what stands now, and against what it would be if something were otherwise. */
export function makePlan(problem: PlanProblem, limits: () => SearchLimits, whatIf: readonly WhatIf[] = []): MadePlan {
  const found = searchPlan(problem, limits())
  return {
    plan: found.schedule,
    moves: movesOf(problem, found.schedule),
    now: figuresOf(problem, standingPlan(problem)),
    then: figuresOf(problem, found.schedule),
    inserted: found.inserted,
    rounds: found.rounds,
    whatIf: whatIf.map((what) => {
      const other = varied(problem, what)
      return figuresOf(other, searchPlan(other, limits()).schedule)
    }),
    columns: found.routes,
  }
}
