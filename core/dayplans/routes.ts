import { PLAN_STEP_MINUTES, PROMISE_STEP_MINUTES } from './model'
import type { PlanDuty } from './model'
import type { Ready } from './ready'

/**
 * The ways to have done the stops so far: when each is over and what it has cost, the earlier the dearer. Where a
 * job is planned already, beginning it as it stands may be worth waiting for, so that there can be more than one.
 */
export interface Front {
  times: number[]
  costs: number[]
}
/** What is done in one duty, in order: jobs by their number, and blocks as -1, -2, … */
export interface Route {
  duty: number
  stops: readonly number[]
  cost: number
  fronts: readonly Front[]
  /** When each stop has to begin at the latest for the rest to be possible. */
  latest: readonly number[]
}

export const blockAt = (index: number): number => -1 - index
export const stepUp = (minutes: number, step: number): number => Math.ceil(minutes / step) * step
/** More than there are steps in a day. */
const MOST_LABELS = 1_024

/** Makes and costs routes of a problem. Not shared between threads: it writes into memory of its own. */
export class Routes {
  /** When a job that several do together begins; -1 for those that begin as it suits. */
  readonly pins: Int32Array
  private times = [new Float64Array(MOST_LABELS), new Float64Array(MOST_LABELS)]
  private costs = [new Float64Array(MOST_LABELS), new Float64Array(MOST_LABELS)]
  private now = 0
  private many = 0
  private readonly duties: readonly PlanDuty[]
  private readonly people: number

  constructor(readonly ready: Ready) {
    this.pins = new Int32Array(ready.jobs.length).fill(-1)
    this.duties = ready.problem.duties
    this.people = ready.problem.technicians.length
  }

  /** A duty with nothing in it but what stays as it is. */
  bare(duty: number): Route {
    return this.make(
      duty,
      this.duties[duty]!.blocks.map((_, index) => blockAt(index)),
    )!
  }

  /** @returns null when it is not possible in that order */
  make(duty: number, stops: readonly number[]): Route | null {
    const fronts: Front[] = []
    this.begin(duty)
    let at = this.startOf(duty)
    let before: number | null = null
    for (const stop of stops) {
      if (!this.go(duty, at, before, stop)) return null
      at = this.placeOf(duty, stop)
      before = stop
      fronts.push({ times: [...this.times[this.now]!.subarray(0, this.many)], costs: [...this.costs[this.now]!.subarray(0, this.many)] })
    }
    const cost = stops.length ? this.end(duty, at) : 0
    return { duty, stops, cost, fronts, latest: this.latestOf(duty, stops) }
  }

  /** Where a job costs least in a route, and how much more than without it; null where it cannot be. */
  best(route: Route, job: number): { at: number; more: number } | null {
    const { duty, stops, latest } = route
    if (!this.ready.able[job * this.people + this.duties[duty]!.technician]) return null
    const place = this.ready.placeOf[job]!
    const pin = this.pins[job]!
    const lastStart = Math.min(this.lastStart(duty, job), pin >= 0 ? pin : Infinity)
    const soonest = this.ready.earliest[job]!
    let found: { at: number; more: number } | null = null
    for (let at = 0; at <= stops.length; at++) {
      const before = at ? stops[at - 1]! : null
      const from = before === null ? this.startOf(duty) : this.placeOf(duty, before)
      const over = this.soonestAfter(route, at)
      if (over > lastStart) break
      const reached = Math.max(over + this.timeTo(duty, before, place), soonest)
      if (reached > lastStart) continue
      const next = stops[at]
      const begins = pin >= 0 ? pin : reached
      if (next !== undefined && begins + this.ready.jobs[job]!.minutes + this.ready.way[place * this.ready.places + this.placeOf(duty, next)]! > latest[at]!)
        continue
      this.resume(route, at)
      if (!this.go(duty, from, before, job)) continue
      const more = this.rest(route, at, job) - route.cost
      if (more < (found?.more ?? Infinity)) found = { at, more }
    }
    return found
  }

  /** The start of each job of a route, in the order of its stops; of blocks, their own. */
  starts(route: Route): number[] {
    const { duty, stops, fronts } = route
    const found = new Array<number>(stops.length).fill(0)
    if (!stops.length) return found
    const home = this.placeOf(duty, stops.at(-1)!)
    const last = fronts.at(-1)!
    let label = last.times.reduce((best, _, n) => (this.endCost(duty, home, last, n) < this.endCost(duty, home, last, best) ? n : best), 0)
    for (let n = stops.length - 1; n >= 0; n--) {
      const stop = stops[n]!
      const until = fronts[n]!.times[label]!
      if (stop < 0) found[n] = this.duties[duty]!.blocks[-1 - stop]!.from
      else found[n] = until - this.ready.jobs[stop]!.minutes
      if (n) label = this.before(route, n, label, found[n]!)
    }
    return found
  }

  /** Which of the ways to have done what comes before led to a label. */
  private before(route: Route, n: number, label: number, start: number): number {
    const { duty, stops, fronts } = route
    const stop = stops[n]!
    const [earlier, here] = [fronts[n - 1]!, fronts[n]!]
    const way = this.ready.way[this.placeOf(duty, stops[n - 1]!) * this.ready.places + this.placeOf(duty, stop)]!
    const own = stop >= 0 ? this.visitCost(duty, stop, start) : 0
    const wanted = here.costs[label]! - own - way * this.ready.problem.weights.travel
    const free = stop < 0 && stops[n - 1]! < 0
    let best = 0
    for (let k = 0; k < earlier.times.length; k++)
      if ((free || earlier.times[k]! + way <= start) && Math.abs(earlier.costs[k]! - wanted) <= Math.abs(earlier.costs[best]! - wanted)) best = k
    return best
  }

  visitCost(duty: number, job: number, start: number): number {
    return this.ready.startCost(job, start) + this.ready.person[job * this.people + this.duties[duty]!.technician]!
  }
  /** The last minute at which a job can begin in a duty, by its window and by when the shift ends with what may be added to it. */
  lastStart(duty: number, job: number): number {
    const { until, overtime } = this.duties[duty]!
    return Math.min(this.ready.latest[job]!, until + overtime - this.ready.jobs[job]!.minutes)
  }
  /** Minutes to a stop that take time off the shift: not from where the day begins, that way is made before. */
  timeTo(duty: number, before: number | null, place: number): number {
    return before === null ? 0 : this.ready.way[this.placeOf(duty, before) * this.ready.places + place]!
  }
  startOf(duty: number): number {
    return this.duties[duty]!.start ?? this.ready.nowhere
  }
  placeOf(duty: number, stop: number): number {
    return stop >= 0 ? this.ready.placeOf[stop]! : (this.duties[duty]!.blocks[-1 - stop]!.place ?? this.ready.nowhere)
  }

  private soonestAfter(route: Route, at: number): number {
    return at ? route.fronts[at - 1]!.times[0]! : this.duties[route.duty]!.from
  }
  private begin(duty: number): void {
    this.times[this.now]![0] = this.duties[duty]!.from
    this.costs[this.now]![0] = 0
    this.many = 1
  }
  private resume(route: Route, at: number): void {
    if (!at) return this.begin(route.duty)
    const { times, costs } = route.fronts[at - 1]!
    this.many = times.length
    for (let n = 0; n < times.length; n++) {
      this.times[this.now]![n] = times[n]!
      this.costs[this.now]![n] = costs[n]!
    }
  }
  /** What the whole route comes to once the stops from one on follow what was done so far. */
  private rest(route: Route, from: number, job: number): number {
    const { duty, stops, fronts } = route
    let at = this.ready.placeOf[job]!
    let before = job
    for (let n = from; n < stops.length; n++) {
      const stop = stops[n]!
      if (!this.go(duty, at, before, stop)) return Infinity
      at = this.placeOf(duty, stop)
      before = stop
      const known = fronts[n]!
      // From here on everything is as it was.
      if (this.many === 1 && known.times.length === 1 && this.times[this.now]![0] === known.times[0]!)
        return route.cost + this.costs[this.now]![0]! - known.costs[0]!
    }
    return this.end(duty, at)
  }

  private go(duty: number, from: number, before: number | null, stop: number): boolean {
    return stop >= 0 ? this.goToJob(duty, from, before === null, stop) : this.goToBlock(duty, from, before !== null && before >= 0, -1 - stop)
  }
  private goToBlock(duty: number, from: number, fromJob: boolean, index: number): boolean {
    const block = this.duties[duty]!.blocks[index]!
    const way = this.ready.way[from * this.ready.places + (block.place ?? this.ready.nowhere)]!
    const [times, costs] = [this.times[this.now]!, this.costs[this.now]!]
    let least = Infinity
    // What stays as it is stays: whether there is time between two of them is not asked.
    for (let n = 0; n < this.many; n++) if (!fromJob || times[n]! + way <= block.from) least = Math.min(least, costs[n]!)
    if (least === Infinity) return false
    times[0] = block.until
    costs[0] = least + way * this.ready.problem.weights.travel
    this.many = 1
    return true
  }
  private goToJob(duty: number, from: number, isFirst: boolean, job: number): boolean {
    const { ready } = this
    const way = ready.way[from * ready.places + ready.placeOf[job]!]!
    const wayCost = way * ready.problem.weights.travel
    const soonest = ready.earliest[job]!
    const last = this.lastStart(duty, job)
    const pin = this.pins[job]!
    const now = ready.jobs[job]!.now
    const [times, costs] = [this.times[this.now]!, this.costs[this.now]!]
    const many = this.many
    this.now = 1 - this.now
    this.many = 0
    for (let n = 0; n < many; n++) {
      const reached = Math.max(times[n]! + (isFirst ? 0 : way), soonest)
      const cost = costs[n]! + wayCost
      if (pin >= 0) {
        if (reached <= pin && pin <= last) this.label(duty, job, pin, cost)
        continue
      }
      if (!now) {
        const start = stepUp(reached, PLAN_STEP_MINUTES)
        if (start <= last) this.label(duty, job, start, cost)
        continue
      }
      const step = now.promised ? PROMISE_STEP_MINUTES : PLAN_STEP_MINUTES
      const first = stepUp(reached, step)
      // The nearer to what was promised the less it costs, so every step up to there is a way to do it.
      if (now.promised && reached <= now.start) for (let start = first; start < now.start && start <= last; start += step) this.label(duty, job, start, cost)
      else if (first <= last) this.label(duty, job, first, cost)
      if (reached <= now.start && now.start <= last) this.label(duty, job, now.start, cost)
    }
    return this.many > 0
  }
  /** One more way to have done it, unless another is as early and as cheap; those it beats are forgotten. */
  private label(duty: number, job: number, start: number, before: number): void {
    const time = start + this.ready.jobs[job]!.minutes
    const cost = before + this.visitCost(duty, job, start)
    const [times, costs] = [this.times[this.now]!, this.costs[this.now]!]
    let at = 0
    while (at < this.many && times[at]! <= time) {
      if (costs[at]! <= cost) return
      if (times[at]! === time) break
      at++
    }
    let beaten = at
    while (beaten < this.many && costs[beaten]! >= cost) beaten++
    times.copyWithin(at + 1, beaten, this.many)
    costs.copyWithin(at + 1, beaten, this.many)
    this.many += 1 - (beaten - at)
    times[at] = time
    costs[at] = cost
  }
  private end(duty: number, from: number): number {
    const front = { times: this.times[this.now]!, costs: this.costs[this.now]! }
    let least = Infinity
    for (let n = 0; n < this.many; n++) least = Math.min(least, this.endCost(duty, from, front, n))
    return least
  }
  private endCost(duty: number, from: number, { times, costs }: { times: ArrayLike<number>; costs: ArrayLike<number> }, n: number): number {
    const { until, end } = this.duties[duty]!
    const { travel, overtime } = this.ready.problem.weights
    const way = this.ready.way[from * this.ready.places + (end ?? this.ready.nowhere)]!
    return costs[n]! + way * travel + Math.max(0, times[n]! - until) * overtime
  }
  private latestOf(duty: number, stops: readonly number[]): number[] {
    const found = new Array<number>(stops.length).fill(0)
    let [next, to] = [Infinity, -1]
    for (let n = stops.length - 1; n >= 0; n--) {
      const stop = stops[n]!
      const place = this.placeOf(duty, stop)
      if (stop < 0) found[n] = this.duties[duty]!.blocks[-1 - stop]!.from
      else {
        const way = to < 0 ? 0 : this.ready.way[place * this.ready.places + to]!
        found[n] = Math.min(this.lastStart(duty, stop), next - way - this.ready.jobs[stop]!.minutes)
      }
      ;[next, to] = [found[n]!, place]
    }
    return found
  }
}
