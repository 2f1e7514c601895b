import type { Highs } from 'highs'
import { Master } from './master'
import type { Column } from './master'
import type { PlanProblem } from './model'
import { Pricing } from './pricing'
import { Ready } from './ready'
import { Routes } from './routes'

export interface Bound {
  /** No plan of the problem costs less. */
  value: number
  /** Whether it is the least the linear programme comes to; otherwise what was certain when time was over. */
  converged: boolean
  rounds: number
}

/** A round that gains less than this share of the bound is the last. */
const SETTLED = 1e-6

/**
 * What no plan can cost less than: the linear programme over all routes, of which those are made that it asks for (column
 * generation: Desrosiers, Soumis and Desrochers 1984, Networks 14(4), from memory). Stopped early, it is what
 * the prices of a round prove: their sum, and what the best route of each duty would save at them (the Lagrangian bound).
 * @param begin routes known already, for good prices from the start
 * @param stop asked between duties
 * @param hurry once there is, every round proves something, though it takes longer
 * @returns null when not one round was finished in time
 */
export function boundOf(problem: PlanProblem, highs: Highs, begin: readonly Column[], stop: () => boolean, hurry: () => boolean = () => false): Bound | null {
  const ready = new Ready(problem)
  const routes = new Routes(ready)
  const pricing = new Pricing(ready)
  const bare = problem.duties.map((_, duty) => routes.bare(duty).cost)
  const base = bare.reduce((sum, cost) => sum + cost, 0)
  const left = ready.jobs.map(({ people }, job) => ({ people, left: ready.left[job]! }))
  const master = new Master(highs, left, problem.duties.length)
  let best: number | null = null
  let rounds = 0
  try {
    for (const { duty, jobs, cost } of begin) master.add({ duty, jobs, cost: cost - bare[duty]! })
    let exact = false
    for (;;) {
      const prices = master.solve()
      exact ||= hurry()
      if (!prices) return best === null ? null : { value: best + base, converged: false, rounds }
      let added = 0
      let proves = left.reduce((sum, { people }, job) => sum + people * prices.ofJob[job]!, 0)
      for (let duty = 0; duty < problem.duties.length; duty++) {
        if (stop()) return best === null ? null : { value: best + base, converged: false, rounds }
        // A route is worth having when it saves more than those there are.
        const found = pricing.best(duty, prices.ofJob, exact, prices.ofDuty[duty]! - 1e-6)
        proves += found.least
        for (const column of found.columns) if (master.add(column)) added++
      }
      rounds++
      if (exact) {
        best = Math.max(best ?? -Infinity, proves)
        if (!added || prices.value - best <= SETTLED * Math.abs(prices.value)) return { value: best + base, converged: true, rounds }
      }
      // Quick passes as long as they find anything, then those that prove something.
      exact = exact ? added > 0 : added === 0
    }
  } finally {
    master.dispose()
  }
}
