import loadHighs from 'highs'
import type { Highs } from 'highs'
import { boundOf } from './bound'
import type { PlanProblem } from './model'
import { inventProblem } from './problems'
import { Ready } from './ready'
import { Routes } from './routes'
import { searchPlan } from './search'

/** For checks alone: what a plan costs, beside its bound and the least that any can. */
export interface Reckoned {
  cost: number
  bound: number
  converged: boolean
  least: number
}

/** So many small problems, each with the least there can be. */
export async function overLeast(many: number): Promise<Reckoned[]> {
  const highs = await loadHighs()
  return Array.from({ length: many }, (_, n) => {
    const problem = small(n + 1)
    const { cost } = searchPlan(problem, { seed: 1, rounds: 200 })
    const bound = boundOf(problem, highs, [], () => false)!
    return { cost, bound: bound.value, converged: bound.converged, least: leastOf(problem, highs) }
  })
}

/** Problems of so many jobs each, beside their bound. */
export async function overBound(sizes: readonly number[]): Promise<Omit<Reckoned, 'least'>[]> {
  const highs = await loadHighs()
  return sizes.map((jobs, n) => {
    const problem = inventProblem({ jobs, technicians: Math.round(jobs / 6), seed: 20 + n, teams: 0 })
    const { cost, routes } = searchPlan(problem, { seed: 1, rounds: 1_500 })
    const bound = boundOf(problem, highs, routes, () => false)!
    return { cost, bound: bound.value, converged: bound.converged }
  })
}

/** Of every five, one in which most can be done by two; the others are enumerated sooner. */
const small = (seed: number) => inventProblem({ jobs: 8, technicians: 3, seed, trades: seed % 5 ? 3 : 2, teams: 0 })

/** The least any plan of a small problem without teams costs: every route, and of those the best choice by an integer programme. */
function leastOf(problem: PlanProblem, highs: Highs): number {
  const ready = new Ready(problem)
  const routes = new Routes(ready)
  const jobs = problem.jobs.length
  const columns: { duty: number; jobs: number[]; cost: number }[] = []
  problem.duties.forEach((duty, d) => {
    const best = new Map<string, { jobs: number[]; cost: number }>()
    const extend = (done: readonly number[]): void => {
      // Every order of the jobs, and every place of the blocks among them; nothing follows what is not possible.
      const made = woven(done, duty.blocks.length).flatMap((stops) => routes.make(d, stops) ?? [])
      if (!made.length) return
      const key = [...done].sort((a, b) => a - b).join()
      const cost = Math.min(...made.map((route) => route.cost))
      if (cost < (best.get(key)?.cost ?? Infinity)) best.set(key, { jobs: [...done], cost })
      for (let job = 0; job < jobs; job++) if (!done.includes(job) && ready.able[job * problem.technicians.length + duty.technician]) extend([...done, job])
    }
    extend([])
    for (const one of best.values()) columns.push({ duty: d, ...one })
  })
  const model = highs.createModel()
  try {
    model.options.set({ output_flag: false, mip_rel_gap: 0 })
    problem.jobs.forEach((_, j) => {
      model.addVar(0, 1)
      model.changeColCost(j, ready.left[j]!)
    })
    problem.jobs.forEach((_, j) => model.addRow(1, 1, { indices: [j], values: [1] }))
    problem.duties.forEach(() => model.addRow(1, 1, { indices: [], values: [] }))
    columns.forEach((column, n) => {
      const rows = [...column.jobs, jobs + column.duty].sort((a, b) => a - b)
      model.addCol(column.cost, 0, 1, { indices: rows, values: rows.map(() => 1) })
      model.changeColIntegrality(jobs + n, highs.constants.variableType.integer)
    })
    model.run()
    return model.getObjectiveValue()
  } finally {
    model.dispose()
  }
}
/** Jobs in their order with the blocks in theirs, in every way. */
function woven(jobs: readonly number[], blocks: number): number[][] {
  if (!blocks) return [[...jobs]]
  return Array.from({ length: jobs.length + 1 }, (_, at) => [...jobs.slice(0, at), -1, ...jobs.slice(at)])
}
