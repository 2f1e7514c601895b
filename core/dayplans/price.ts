import type { PlannedJob, PlanProblem, Schedule } from './model'
import { noTerms, Ready, TERMS } from './ready'
import type { Terms } from './ready'

/** What somebody does in one duty, in the order of time. */
export interface Stop {
  /** Null for what stays as it is. */
  job: number | null
  from: number
  until: number
  place: number | null
}

/** A plan reckoned from its times alone, apart from how it was made: its cost by what it is for, and what it breaks. */
export class Pricer {
  private readonly ready: Ready
  private readonly dutiesOf: number[][]
  constructor(readonly problem: PlanProblem) {
    this.ready = new Ready(problem)
    this.dutiesOf = problem.technicians.map((_, technician) => problem.duties.flatMap((duty, d) => (duty.technician === technician ? [d] : [])))
  }

  /** In weighted minutes. What two jobs that lie over each other cost is reckoned, too, so that plans in the making can be compared. */
  terms(schedule: Schedule): Terms {
    const found = noTerms()
    schedule.forEach((one, job) => addTo(found, this.jobTerms(job, one)))
    this.jobsBy(schedule).forEach((jobs, technician) => addTo(found, this.wayTerms(technician, jobs, schedule)))
    return found
  }
  /** What a job costs by itself, planned like that or left. */
  jobTerms(j: number, one: PlannedJob | null): Terms {
    if (!one) return this.ready.termsLeft(j)
    const job = this.ready.jobs[j]!
    const late = this.ready.lateWeight[j]! * this.ready.lateMinutes(j, one.start + job.minutes)
    const moved = job.now ? this.ready.movedCost(job.now, one.start) : 0
    const found = noTerms()
    for (const technician of one.technicians)
      addTo(found, { ...noTerms(), late, moved, handed: this.ready.handedCost(job, technician), knows: this.ready.knowsCost(job, technician) })
    return found
  }
  /** What the ways and the overtime of somebody cost who does these jobs. */
  wayTerms(technician: number, jobs: readonly number[], schedule: Schedule): Terms {
    const { travel, overtime } = this.problem.weights
    const minutes = this.minutesOf(technician, jobs, schedule)
    return { ...noTerms(), travel: minutes.travelMinutes * travel, overtime: minutes.overtimeMinutes * overtime }
  }
  /** The jobs of each technician. */
  jobsBy(schedule: Schedule): number[][] {
    const found = this.problem.technicians.map((): number[] => [])
    schedule.forEach((one, job) => one?.technicians.forEach((technician) => found[technician]!.push(job)))
    return found
  }

  /** On the way and beyond shifts, and what that and the work itself costs, in minor units. */
  minutes(schedule: Schedule): { travelMinutes: number; overtimeMinutes: number; costMinor: number } {
    const all = this.jobsBy(schedule).map((jobs, technician) => this.minutesOf(technician, jobs, schedule))
    const sum = (of: (one: (typeof all)[number]) => number) => all.reduce((total, one) => total + of(one), 0)
    return { travelMinutes: sum((one) => one.travelMinutes), overtimeMinutes: sum((one) => one.overtimeMinutes), costMinor: Math.round(sum((one) => one.cost)) }
  }
  private minutesOf(technician: number, jobs: readonly number[], schedule: Schedule): { travelMinutes: number; overtimeMinutes: number; cost: number } {
    let [travelMinutes, overtimeMinutes, cost] = [0, 0, 0]
    const { normalPerHour, overtimePerHour } = this.problem.technicians[technician]!
    for (const [d, stops] of this.stopsOf(technician, jobs, schedule)) {
      if (!stops.length) continue
      const duty = this.problem.duties[d]!
      const places = [duty.start, ...stops.map(({ place }) => place), duty.end]
      const travel = places.slice(1).reduce<number>((sum, place, n) => sum + this.ready.wayBetween(places[n]!, place), 0)
      const overtime = Math.max(0, Math.max(...stops.map(({ until }) => until)) - duty.until)
      const work = stops.reduce((sum, { job, from, until }) => sum + (job === null ? 0 : until - from), 0)
      travelMinutes += travel
      overtimeMinutes += overtime
      cost += ((work + travel - overtime) * normalPerHour + overtime * overtimePerHour) / 60
    }
    return { travelMinutes, overtimeMinutes, cost }
  }

  /** What somebody does in each duty, in the order of time; a visit belongs to the duty in which it begins, or to the one nearest to it. */
  private stopsOf(technician: number, jobs: readonly number[], schedule: Schedule): [duty: number, stops: Stop[]][] {
    const own = this.dutiesOf[technician]!
    const found = new Map(own.map((d) => [d, this.problem.duties[d]!.blocks.map(({ from, until, place }): Stop => ({ job: null, from, until, place }))]))
    for (const job of jobs) {
      const { start } = schedule[job]!
      const { minutes, place } = this.ready.jobs[job]!
      found.get(this.dutyOf(technician, start))?.push({ job, from: start, until: start + minutes, place })
    }
    return [...found].map(([d, stops]) => [d, stops.sort((a, b) => a.from - b.from || a.until - b.until)])
  }
  private dutyOf(technician: number, at: number): number {
    const far = (d: number) => Math.max(0, this.problem.duties[d]!.from - at, at - this.problem.duties[d]!.until)
    return this.dutiesOf[technician]!.reduce((best, d) => (best === -1 || far(d) < far(best) ? d : best), -1)
  }

  /** Each hard rule a plan breaks, in a few words; none for a plan that can be carried out. */
  broken(schedule: Schedule): string[] {
    const found: string[] = []
    schedule.forEach((one, j) => {
      if (!one) return
      const job = this.ready.jobs[j]!
      const say = (what: string) => found.push(`job ${j}: ${what}`)
      if (new Set(one.technicians).size !== job.people) say(`${one.technicians.length} go, and not ${job.people}`)
      if (one.technicians.some((technician) => !job.able.includes(technician))) say('somebody may not do it')
      if (one.start < job.earliest) say('before it can be begun')
      if (job.window && (one.start < job.window.from || one.start > job.window.until)) say('outside of what was agreed')
      for (const technician of one.technicians) {
        const duty = this.problem.duties[this.dutyOf(technician, one.start)]
        if (!duty || one.start < duty.from || one.start + job.minutes > duty.until + duty.overtime) say('outside of the shift')
      }
    })
    this.jobsBy(schedule).forEach((jobs, technician) => {
      for (const [d, stops] of this.stopsOf(technician, jobs, schedule))
        for (let n = 1; n < stops.length; n++) {
          const [before, after] = [stops[n - 1]!, stops[n]!]
          // Two that stay as they are are nobody’s doing.
          if (before.job === null && after.job === null) continue
          if (before.until + this.ready.wayBetween(before.place, after.place) > after.from)
            found.push(`duty ${d}: no time between ${before.job} and ${after.job}`)
        }
    })
    return found
  }
}

export function addTo(sum: Terms, more: Terms, times = 1): void {
  for (const term of TERMS) sum[term] += times * more[term]
}
