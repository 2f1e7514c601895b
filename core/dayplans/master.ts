import type { Highs } from 'highs'

/** A route a linear programme may choose, wholly or in part. */
export interface Column {
  duty: number
  /** Jobs in their order; one may come twice where a route is only nearly possible. */
  jobs: readonly number[]
  /** Beside what the duty costs with nothing in it. */
  cost: number
}
export interface Prices {
  value: number
  /** What doing a job is worth; nought or more. */
  ofJob: Float64Array
  /** What another route of a duty would have to save at least; nought or less. */
  ofDuty: Float64Array
}

/**
 * The linear programme of a plan: of each duty at most one route, each job as often as people are needed or left, at what
 * that costs. Solved by HiGHS, from where it stood before when columns are added.
 */
export class Master {
  private readonly model
  private readonly known = new Set<string>()

  constructor(highs: Highs, jobs: readonly { people: number; left: number }[], duties: number) {
    this.model = highs.createModel()
    this.model.options.set({ output_flag: false, presolve: 'off', solver: 'simplex' })
    for (const { left } of jobs) {
      this.model.addVar(0, highs.infinity)
      this.model.changeColCost(this.known.size, left)
      this.known.add(`left:${this.known.size}`)
    }
    jobs.forEach(({ people }, job) => this.model.addRow(people, highs.infinity, { indices: [job], values: [people] }))
    for (let duty = 0; duty < duties; duty++) this.model.addRow(-highs.infinity, 1, { indices: [], values: [] })
    this.many = jobs.length
  }
  private readonly many: number

  /** @returns whether it was new */
  add({ duty, jobs, cost }: Column): boolean {
    const key = `${duty}:${jobs.join()}`
    if (this.known.has(key)) return false
    this.known.add(key)
    const times = new Map<number, number>()
    for (const job of jobs) times.set(job, (times.get(job) ?? 0) + 1)
    times.set(this.many + duty, 1)
    const rows = [...times.keys()].sort((a, b) => a - b)
    this.model.addCol(cost, 0, Infinity, { indices: rows, values: rows.map((row) => times.get(row)!) })
    return true
  }

  /** @returns null where the solver found no optimum */
  solve(): Prices | null {
    this.model.run()
    if (this.model.getModelStatus() !== OPTIMAL) return null
    const { rowDual } = this.model.getSolution()
    return {
      value: this.model.getObjectiveValue(),
      ofJob: rowDual.slice(0, this.many).map((price) => Math.max(0, price)),
      ofDuty: rowDual.slice(this.many).map((price) => Math.min(0, price)),
    }
  }
  dispose(): void {
    this.model.dispose()
  }
}
/** Of the statuses of HiGHS. */
const OPTIMAL = 7
