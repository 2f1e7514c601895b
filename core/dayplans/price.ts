import type { PlanProblem, Schedule } from './model'
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
  constructor(readonly problem: PlanProblem) {
    this.ready = new Ready(problem)
  }

  /** In weighted minutes. What two jobs that lie over each other cost is reckoned, too, so that plans in the making can be compared. */
  terms(schedule: Schedule): Terms {
    const { weights } = this.problem
    const found = noTerms()
    const add = (terms: Partial<Terms>) => {
      for (const term of TERMS) found[term] += terms[term] ?? 0
    }
    schedule.forEach((one, j) => {
      if (!one) return add(this.ready.termsLeft(j))
      const job = this.ready.jobs[j]!
      const late = this.ready.lateWeight[j]! * this.ready.lateMinutes(j, one.start + job.minutes)
      for (const technician of one.technicians)
        add({
          late,
          moved: job.now ? this.ready.movedCost(job.now, one.start) : 0,
          handed: this.ready.handedCost(job, technician),
          knows: this.ready.knowsCost(job, technician),
        })
    })
    const { travelMinutes, overtimeMinutes } = this.minutes(schedule)
    add({ travel: travelMinutes * weights.travel, overtime: overtimeMinutes * weights.overtime })
    return found
  }

  /** On the way and beyond shifts, and what that and the work itself costs, in minor units. */
  minutes(schedule: Schedule): { travelMinutes: number; overtimeMinutes: number; costMinor: number } {
    let [travelMinutes, overtimeMinutes, cost] = [0, 0, 0]
    this.problem.duties.forEach((duty, d) => {
      const stops = this.stops(schedule, d)
      if (!stops.length) return
      const places = [duty.start, ...stops.map(({ place }) => place), duty.end]
      const travel = places.slice(1).reduce<number>((sum, place, n) => sum + this.ready.wayBetween(places[n]!, place), 0)
      const overtime = Math.max(0, Math.max(...stops.map(({ until }) => until)) - duty.until)
      const work = stops.reduce((sum, { job, from, until }) => sum + (job === null ? 0 : until - from), 0)
      const { normalPerHour, overtimePerHour } = this.problem.technicians[duty.technician]!
      travelMinutes += travel
      overtimeMinutes += overtime
      cost += ((work + travel - overtime) * normalPerHour + overtime * overtimePerHour) / 60
    })
    return { travelMinutes, overtimeMinutes, costMinor: Math.round(cost) }
  }

  /** What is done in a duty, in the order of time; a visit belongs to the duty in which it begins, or to the one nearest to it. */
  stops(schedule: Schedule, duty: number): Stop[] {
    const { technician, blocks } = this.problem.duties[duty]!
    const own = schedule.flatMap((one, job): Stop[] => {
      if (!one?.technicians.includes(technician) || this.dutyOf(technician, one.start) !== duty) return []
      const { minutes, place } = this.ready.jobs[job]!
      return [{ job, from: one.start, until: one.start + minutes, place }]
    })
    return [...own, ...blocks.map(({ from, until, place }) => ({ job: null, from, until, place }))].sort((a, b) => a.from - b.from || a.until - b.until)
  }
  dutyOf(technician: number, at: number): number {
    const far = ({ from, until }: { from: number; until: number }) => Math.max(0, from - at, at - until)
    let found = -1
    this.problem.duties.forEach((duty, d) => {
      if (duty.technician === technician && (found === -1 || far(duty) < far(this.problem.duties[found]!))) found = d
    })
    return found
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
    this.problem.duties.forEach((_, d) => {
      const stops = this.stops(schedule, d)
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
