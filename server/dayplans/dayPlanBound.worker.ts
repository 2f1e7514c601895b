import loadHighs from 'highs'
import { boundOf } from '#core/dayplans'
import type { Bound, Column, PlanProblem } from '#core/dayplans'

export interface BoundJob {
  problem: PlanProblem
  columns: Column[]
  seconds: number
}

export default async function bound({ problem, columns, seconds }: BoundJob): Promise<Bound | null> {
  const [now, whole] = [Date.now(), seconds * 1000]
  return boundOf(
    problem,
    await loadHighs(),
    columns,
    () => Date.now() >= now + whole,
    () => Date.now() >= now + whole * HURRY,
  )
}
/** The share of its time after which something is to be certain. */
const HURRY = 0.6
