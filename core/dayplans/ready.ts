import type { PlanJob, PlanProblem } from './model'
import { weightOf } from './weights'

/** What one visit costs beside the way to it, by what it is for; `unplanned` stands for jobs, not for visits. */
export interface Terms {
  late: number
  travel: number
  overtime: number
  unplanned: number
  moved: number
  handed: number
  knows: number
}
export const TERMS = ['late', 'unplanned', 'travel', 'overtime', 'moved', 'handed', 'knows'] as const satisfies readonly (keyof Terms)[]
export const noTerms = (): Terms => ({ late: 0, unplanned: 0, travel: 0, overtime: 0, moved: 0, handed: 0, knows: 0 })
export const sumOf = (terms: Terms): number => TERMS.reduce((sum, term) => sum + terms[term], 0)
/** Visits begun within so many minutes of what was promised weigh no minutes. */
const PROMISE_SLACK = 15

/** A problem with everything looked up beforehand, so that costing a stop is arithmetic on arrays. */
export class Ready {
  readonly jobs: readonly PlanJob[]
  /** Places and one more, nowhere, from which and to which no way is counted. */
  readonly places: number
  readonly nowhere: number
  readonly way: Int32Array
  readonly placeOf: Int32Array
  /** Of a visit: a job for several carries its lateness in equal shares. */
  readonly lateWeight: Float64Array
  /** By job and technician: 1 where they may. */
  readonly able: Uint8Array
  /** By job and technician: what sending them costs by itself. */
  readonly person: Float64Array
  /** What it costs not to plan a job at all. */
  readonly left: Float64Array
  readonly earliest: Float64Array
  readonly latest: Float64Array
  private readonly worked: Float64Array
  private readonly due: Float64Array

  constructor(readonly problem: PlanProblem) {
    const { jobs, technicians, travel, weights } = problem
    this.jobs = jobs
    this.nowhere = travel.length
    this.places = travel.length + 1
    this.way = new Int32Array(this.places * this.places)
    travel.forEach((row, from) => row.forEach((minutes, to) => (this.way[from * this.places + to] = minutes)))
    this.worked = workedMinutes(problem)
    this.placeOf = Int32Array.from(jobs, ({ place }) => place ?? this.nowhere)
    this.lateWeight = Float64Array.from(jobs, ({ target, priority, people }) => (target === null ? 0 : weightOf(weights.late, priority) / people))
    this.due = Float64Array.from(jobs, (job) => this.dueOn(job))
    this.earliest = Float64Array.from(jobs, ({ earliest, window }) => Math.max(earliest, window?.from ?? 0))
    this.latest = Float64Array.from(jobs, ({ window }) => window?.until ?? Infinity)
    const people = technicians.length
    this.able = new Uint8Array(jobs.length * people)
    this.person = new Float64Array(jobs.length * people)
    jobs.forEach((job, j) => {
      for (const t of job.able) this.able[j * people + t] = 1
      for (let t = 0; t < people; t++) this.person[j * people + t] = this.handedCost(job, t) + this.knowsCost(job, t)
    })
    this.left = Float64Array.from(jobs, (_, j) => sumOf(this.termsLeft(j)))
  }

  wayBetween(from: number | null, to: number | null): number {
    return this.way[(from ?? this.nowhere) * this.places + (to ?? this.nowhere)]!
  }
  /** What a visit that begins then costs, without the way and without who it is that goes. */
  startCost(j: number, start: number): number {
    const weight = this.lateWeight[j]!
    const late = weight ? weight * this.lateMinutes(j, start + this.jobs[j]!.minutes) : 0
    const now = this.jobs[j]!.now
    return now ? late + this.movedCost(now, start) : late
  }
  /** Minutes past its target, on the clock of the target, of a job that is over then. */
  lateMinutes(j: number, end: number): number {
    if (this.jobs[j]!.target === null) return 0
    const clock = this.jobs[j]!.always ? end : this.worked[Math.min(end, this.worked.length - 1)]!
    return Math.max(0, clock - this.due[j]!)
  }
  movedCost(now: NonNullable<PlanJob['now']>, start: number): number {
    if (start === now.start) return 0
    const { moved, movedPromise, movedPromiseMinute } = this.problem.weights
    if (!now.promised) return moved
    return movedPromise + movedPromiseMinute * Math.max(0, Math.abs(start - now.start) - PROMISE_SLACK)
  }
  handedCost({ now }: PlanJob, technician: number): number {
    if (!now || now.technicians.includes(technician)) return 0
    return now.promised ? this.problem.weights.handedPromise : this.problem.weights.handed
  }
  knowsCost({ known }: PlanJob, technician: number): number {
    return known.includes(technician) ? -this.problem.weights.knows : 0
  }
  /** What leaving a job costs: itself, its lateness as if it began afterwards, and the visits that are taken back. */
  termsLeft(j: number): Terms {
    const { weights, afterwards } = this.problem
    const job = this.jobs[j]!
    const taken = job.now ? job.now.technicians.length * (job.now.promised ? weights.movedPromise : weights.moved) : 0
    return {
      ...noTerms(),
      unplanned: weightOf(weights.unplanned, job.priority),
      late: this.lateWeight[j]! * job.people * this.lateMinutes(j, afterwards + job.minutes),
      moved: taken,
    }
  }

  private dueOn({ target, always, lateAtOrigin }: PlanJob): number {
    if (target === null) return 0
    if (target < 0) return -lateAtOrigin
    return always ? target : this.worked[Math.min(target, this.worked.length - 1)]!
  }
}

/** Working minutes passed since the origin, for each minute up to where anything planned can end. */
function workedMinutes({ working, afterwards, jobs, duties }: PlanProblem): Float64Array {
  const longest = jobs.reduce((most, { minutes }) => Math.max(most, minutes), 0)
  const last = duties.reduce((most, { until, overtime }) => Math.max(most, until + overtime), afterwards)
  const until = last + longest + 1
  const passed = new Float64Array(until + 1)
  let next = 0
  for (let minute = 0; minute < until; minute++) {
    while (next < working.length && working[next]!.until <= minute) next++
    passed[minute + 1] = passed[minute]! + (next < working.length && working[next]!.from <= minute ? 1 : 0)
  }
  return passed
}
