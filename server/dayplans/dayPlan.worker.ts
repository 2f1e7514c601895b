import { makePlan } from '#core/dayplans'
import type { MadePlan, PlanProblem, WhatIf } from '#core/dayplans'

export interface DayPlanJob {
  problem: PlanProblem
  whatIf: WhatIf[]
  seconds: number
  seed: number
}

/** Looks for a plan for so long; for each thing that could be otherwise for as long again, shared among them. */
export default function make({ problem, whatIf, seconds, seed }: DayPlanJob): MadePlan {
  let first = true
  return makePlan(
    problem,
    () => {
      const until = Date.now() + (first ? seconds : seconds / Math.max(1, whatIf.length)) * 1000
      first = false
      return { seed, rounds: MOST_ROUNDS, stop: () => Date.now() >= until }
    },
    whatIf,
  )
}
/** Nothing better is found after so many, with what is planned in a day or a week; small plans are ready sooner by it. */
const MOST_ROUNDS = 50_000
