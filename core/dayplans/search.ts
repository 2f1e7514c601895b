import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { PLAN_STEP_MINUTES, PROMISE_STEP_MINUTES } from './model'
import type { PlanProblem, Schedule } from './model'
import { Ready } from './ready'
import { Routes, stepUp } from './routes'
import type { Route } from './routes'

/** How long a search goes on: so many rounds, or until it is told to stop. */
export interface SearchLimits {
  seed: number
  rounds: number
  /** Asked every few rounds. */
  stop?: () => boolean
}
export interface Found {
  schedule: Schedule
  cost: number
  /** What inserting the jobs one after another alone came to. */
  inserted: number
  rounds: number
  /** Routes that were part of something good, for the bound to begin with. */
  routes: { duty: number; jobs: number[]; cost: number }[]
}

/** What is done by whom; each route is never changed, only replaced. */
interface State {
  routes: Route[]
  /** The duties in which each job is done. */
  duties: number[][]
  pins: number[]
  cost: number
}
/** The cheapest way to add a job: the place in each route it takes. */
interface Insertion {
  job: number
  more: number
  pin: number
  into: { duty: number; at: number }[]
}
interface Fit {
  start: number
  at: number
  more: number
}
/** The best way to add a job, what the second best costs, and the duties they are in. */
interface Ways {
  best: Insertion | null
  second: number
  duties: number[]
}
interface Offer extends Ways {
  regret: number
  noise: number
}

const ASK_EVERY = 8
/** So many jobs are taken out at once at the most, and at the least. */
const [LEAST_OUT, MOST_OUT] = [2, 16]
/** The share of the cost by which something worse is gone on from at first, in each stretch of rounds. */
const FIRST_THRESHOLD = 0.0005
const FIRST_STRETCH = 400
const NOISE = 0.15
/** Of ten rounds, so many insert by regret. */
const BY_REGRET = 3
/** Of a hundred duties, so many are passed over. */
const PASSED_OVER = 2
const KEPT_ROUTES = 8_000
const NOWHERE = { at: 0, more: Infinity }

/**
 * Makes a plan: jobs are inserted by regret, the one that loses most by waiting first; then a few are taken out again and
 * inserted anew, over and over, and what is a little worse is gone on from for a while (adaptive large neighbourhoods:
 * Ropke and Pisinger 2006, Transportation Science 40(4); threshold accepting: Dueck and Scheuer 1990; both from memory). It
 * begins with the plan that stands, so that nothing dearer ever comes out. The same seed and number of rounds make the same.
 */
export function searchPlan(problem: PlanProblem, limits: SearchLimits): Found {
  return new Search(problem, limits).run()
}

/** The same by inserting alone, from nothing: what the search is measured against. */
export function insertPlan(problem: PlanProblem): { schedule: Schedule; cost: number } {
  return new Search(problem, { seed: 1, rounds: 0 }).inserted()
}

class Search {
  private readonly ready: Ready
  private readonly routes: Routes
  private readonly random
  private state: State
  /** Best insertions found before, by route and job: a route is never changed, and many come back. */
  private readonly known = new WeakMap<Route, Map<number, { at: number; more: number }>>()
  private readonly knownFits = new WeakMap<Route, Map<number, Fit[]>>()
  private readonly dutiesOf: number[][]
  /** The least a visit to each could cost, the way apart. */
  private readonly ideal: number[]
  private readonly kept = new WeakSet<Route>()
  private readonly pool = new Map<string, { duty: number; jobs: number[]; cost: number }>()

  constructor(
    problem: PlanProblem,
    private readonly limits: SearchLimits,
  ) {
    this.ready = new Ready(problem)
    this.routes = new Routes(this.ready)
    this.random = xoroshiro128plus(limits.seed)
    const { duties, technicians, jobs } = problem
    this.dutiesOf = jobs.map((_, job) =>
      duties.flatMap(({ technician, from }, duty) => {
        const may = this.ready.able[job * technicians.length + technician]
        return may && Math.max(from, this.ready.earliest[job]!) <= this.routes.lastStart(duty, job) ? [duty] : []
      }),
    )
    this.ideal = jobs.map((_, job) =>
      Math.min(
        Infinity,
        ...this.dutiesOf[job]!.map((duty) =>
          this.routes.visitCost(duty, job, stepUp(Math.max(duties[duty]!.from, this.ready.earliest[job]!), PLAN_STEP_MINUTES)),
        ),
      ),
    )
    const bare = duties.map((_, duty) => this.routes.bare(duty))
    const left = this.ready.left.reduce((sum, cost) => sum + cost, 0)
    this.state = { routes: bare, duties: jobs.map(() => []), pins: jobs.map(() => -1), cost: bare.reduce((sum, { cost }) => sum + cost, left) }
  }

  inserted(): { schedule: Schedule; cost: number } {
    this.insertAll(this.all(), 0)
    return { schedule: this.schedule(), cost: this.state.cost }
  }

  run(): Found {
    const bare = { ...this.state }
    this.insertAll(this.all(), 0)
    const inserted = this.state
    this.take(bare)
    this.beginAsPlanned()
    this.insertAll(this.all(), 0)
    if (inserted.cost < this.state.cost) this.take(inserted)
    const rounds = this.improve()
    return { schedule: this.schedule(), cost: this.state.cost, inserted: inserted.cost, rounds, routes: [...this.pool.values()] }
  }

  private all(): number[] {
    return this.ready.jobs.map((_, job) => job)
  }
  private take(state: State): void {
    this.state = state
    state.pins.forEach((pin, job) => (this.routes.pins[job] = pin))
  }
  private schedule(): Schedule {
    const found: Schedule = this.ready.jobs.map(() => null)
    for (const route of this.state.routes) {
      const starts = this.routes.starts(route)
      route.stops.forEach((job, n) => {
        if (job < 0) return
        const { technician } = this.ready.problem.duties[route.duty]!
        const one = found[job]
        if (one) one.technicians.push(technician)
        else found[job] = { start: starts[n]!, technicians: [technician] }
      })
    }
    for (const one of found) one?.technicians.sort((a, b) => a - b)
    return found
  }

  /** What is planned now and can stay as it is; what cannot is left to be planned. */
  private beginAsPlanned(): void {
    const { jobs } = this.ready
    const held = keptNow(this.ready, this.routes)
    for (const { job, duties } of held) {
      if (jobs[job]!.people > 1) this.pin(job, jobs[job]!.now!.start)
      // Each was possible as it stood, so it is possible now; in the order of their starts.
      for (const duty of duties) {
        const route = this.state.routes[duty]!
        const start = jobs[job]!.now!.start
        const starts = this.routes.starts(route)
        const at = starts.findIndex((one, n) => (route.stops[n]! < 0 ? one : (jobs[route.stops[n]!]!.now?.start ?? one)) >= start)
        this.replace(duty, insertedAt(route.stops, at === -1 ? route.stops.length : at, job), [job])
      }
    }
  }

  private improve(): number {
    let best = this.state
    let current = this.state
    let [round, stretch, since] = [0, FIRST_STRETCH, 0]
    for (; round < this.limits.rounds; round++) {
      if (round % ASK_EVERY === 0 && this.limits.stop?.()) break
      this.take(current)
      const kind = this.below(10)
      if (kind === 0 ? !this.exchangeTails() : !this.rebuild(kind)) continue
      this.keep(this.state)
      const threshold = FIRST_THRESHOLD * (1 - since / stretch) * Math.abs(best.cost)
      if (this.state.cost < best.cost - 1e-6) best = current = this.state
      else if (this.state.cost < best.cost + threshold) current = this.state
      if (++since === stretch) {
        // Another stretch, twice as long, from the best so far.
        ;[since, stretch] = [0, stretch * 2]
        current = best
      }
    }
    this.take(best)
    this.keep(best)
    return round
  }
  /** Routes of what was gone on from: the oldest are forgotten first. */
  private keep({ routes }: State): void {
    for (const route of routes) {
      if (this.kept.has(route)) continue
      this.kept.add(route)
      const jobs = route.stops.filter((stop) => stop >= 0)
      if (!jobs.length) continue
      const key = `${route.duty}:${jobs.join()}`
      this.pool.delete(key)
      this.pool.set(key, { duty: route.duty, jobs, cost: route.cost })
      if (this.pool.size > KEPT_ROUTES) this.pool.delete(this.pool.keys().next().value!)
    }
  }

  private rebuild(kind: number): boolean {
    const planned = this.all().filter((job) => this.state.duties[job]!.length)
    if (!planned.length) return false
    const many = Math.min(planned.length, LEAST_OUT + this.below(1 + this.below(MOST_OUT)))
    const out = kind <= 2 ? this.someOf(planned, many) : kind <= 4 ? this.worst(planned, many) : kind <= 7 ? this.related(planned, many) : this.oneDuty(many)
    if (!out.length) return false
    this.remove(out)
    const left = this.all().filter((job) => !this.state.duties[job]!.length && !out.includes(job))
    const open = [...out, ...this.someOf(left, Math.min(left.length, MOST_OUT))]
    if (this.below(10) < BY_REGRET) this.insertAll(open, NOISE)
    else this.insertInTurn(open)
    return true
  }
  private someOf(jobs: readonly number[], many: number): number[] {
    const left = [...jobs]
    return Array.from({ length: Math.min(many, left.length) }, () => left.splice(this.below(left.length), 1)[0]!)
  }
  /** Those that cost most beyond the least they could, a little by chance. */
  private worst(planned: readonly number[], many: number): number[] {
    const costs = planned
      .map((job) => ({ job, cost: this.state.duties[job]!.reduce((sum, duty) => sum + this.savedBy(duty, job) - this.ideal[job]!, 0) }))
      .sort((a, b) => b.cost - a.cost || a.job - b.job)
    return Array.from({ length: many }, () => costs.splice(Math.floor(this.share() ** 3 * costs.length), 1)[0]!.job)
  }
  private savedBy(duty: number, job: number): number {
    const route = this.state.routes[duty]!
    const n = route.stops.indexOf(job)
    const places = this.ready.places
    const { start, end } = this.ready.problem.duties[duty]!
    const before = n ? this.routes.placeOf(duty, route.stops[n - 1]!) : (start ?? this.ready.nowhere)
    const after = n + 1 < route.stops.length ? this.routes.placeOf(duty, route.stops[n + 1]!) : (end ?? this.ready.nowhere)
    const here = this.ready.placeOf[job]!
    const way = this.ready.way[before * places + here]! + this.ready.way[here * places + after]! - this.ready.way[before * places + after]!
    const start_ = route.fronts[n]!.times[0]! - this.ready.jobs[job]!.minutes
    return way * this.ready.problem.weights.travel + this.routes.visitCost(duty, job, start_)
  }
  /** One by chance, and those near it in place and time that somebody of the same can do. */
  private related(planned: readonly number[], many: number): number[] {
    const first = planned[this.below(planned.length)]!
    const timeOf = (job: number) => {
      const route = this.state.routes[this.state.duties[job]![0]!]!
      return route.fronts[route.stops.indexOf(job)]!.times[0]!
    }
    const at = timeOf(first)
    const can = new Set(this.dutiesOf[first])
    const near = planned.map((job) => {
      const way = this.ready.way[this.ready.placeOf[first]! * this.ready.places + this.ready.placeOf[job]!]!
      const strange = this.dutiesOf[job]!.some((duty) => can.has(duty)) ? 0 : 10_000
      return { job, far: (way * 3 + Math.abs(timeOf(job) - at) + strange) * (1 + this.share()) }
    })
    return near
      .sort((a, b) => a.far - b.far || a.job - b.job)
      .slice(0, many)
      .map(({ job }) => job)
  }
  /** The rest of one person’s duty from some stop on, and of another’s at the same time. */
  private oneDuty(many: number): number[] {
    const busy = this.state.routes.filter(({ stops }) => stops.some((stop) => stop >= 0))
    if (!busy.length) return []
    const found = new Set<number>()
    for (let n = 0; n < 2 && found.size < many; n++) {
      const { stops } = busy[this.below(busy.length)]!
      for (const stop of stops.slice(this.below(stops.length))) if (stop >= 0 && found.size < many) found.add(stop)
    }
    return [...found]
  }
  /** What two people do from some moment on is swapped, where nothing of it is fixed. */
  private exchangeTails(): boolean {
    const { routes } = this.state
    if (routes.length < 2) return false
    const [one, two] = [routes[this.below(routes.length)]!, routes[this.below(routes.length)]!]
    if (one.duty === two.duty) return false
    const cut = (route: Route) => {
      const least = route.stops.findLastIndex((stop) => stop < 0) + 1
      return least + this.below(route.stops.length - least + 1)
    }
    const [a, b] = [cut(one), cut(two)]
    const [tailA, tailB] = [one.stops.slice(a), two.stops.slice(b)]
    if (!tailA.length && !tailB.length) return false
    const people = this.ready.problem.technicians.length
    const can = (duty: number, jobs: readonly number[]) =>
      jobs.every((job) => this.ready.able[job * people + this.ready.problem.duties[duty]!.technician] && !this.elsewhere(job, duty))
    if (!can(one.duty, tailB) || !can(two.duty, tailA)) return false
    const [madeOne, madeTwo] = [
      this.routes.make(one.duty, [...one.stops.slice(0, a), ...tailB]),
      this.routes.make(two.duty, [...two.stops.slice(0, b), ...tailA]),
    ]
    if (!madeOne || !madeTwo) return false
    this.copy()
    this.swapIn(madeOne)
    this.swapIn(madeTwo)
    for (const job of tailA) this.state.duties[job] = this.state.duties[job]!.map((duty) => (duty === one.duty ? two.duty : duty))
    for (const job of tailB) if (!tailA.includes(job)) this.state.duties[job] = this.state.duties[job]!.map((duty) => (duty === two.duty ? one.duty : duty))
    return true
  }
  /** Whether somebody goes to it on another of their duties: nobody is two of the people a job takes. */
  private elsewhere(job: number, duty: number): boolean {
    const { duties } = this.ready.problem
    return this.ready.jobs[job]!.people > 1 && this.state.duties[job]!.some((other) => duties[other]!.technician === duties[duty]!.technician)
  }

  private copy(): void {
    const { routes, duties, pins, cost } = this.state
    this.state = { routes: [...routes], duties: [...duties], pins: [...pins], cost }
  }
  private swapIn(route: Route): void {
    this.state.cost += route.cost - this.state.routes[route.duty]!.cost
    this.state.routes[route.duty] = route
  }
  private pin(job: number, start: number): void {
    this.state.pins[job] = start
    this.routes.pins[job] = start
  }
  private replace(duty: number, stops: readonly number[], added: readonly number[]): void {
    const route = this.routes.make(duty, stops)!
    this.swapIn(route)
    for (const job of added) {
      this.state.duties[job] = [...this.state.duties[job]!, duty]
      if (this.state.duties[job].length === this.ready.jobs[job]!.people) this.state.cost -= this.ready.left[job]!
    }
  }
  private remove(jobs: readonly number[]): void {
    this.copy()
    const out = new Set(jobs)
    const touched = new Set(jobs.flatMap((job) => this.state.duties[job]!))
    // The way between two others may be longer than over what lay between them: then nothing of it can stay.
    for (const duty of touched) {
      const rest = this.state.routes[duty]!.stops.filter((stop) => !out.has(stop))
      const route = this.routes.make(duty, rest)
      if (route) this.swapIn(route)
      else {
        for (const stop of rest) if (stop >= 0) out.add(stop)
        this.swapIn(this.routes.bare(duty))
      }
    }
    for (const job of out) {
      if (!this.state.duties[job]!.length) continue
      // Of several who go together nobody goes when one does not.
      for (const duty of this.state.duties[job]!)
        if (this.state.routes[duty]!.stops.includes(job)) {
          const route = this.routes.make(
            duty,
            this.state.routes[duty]!.stops.filter((stop) => stop !== job),
          )
          if (route) this.swapIn(route)
        }
      this.state.duties[job] = []
      this.state.cost += this.ready.left[job]!
      this.pin(job, -1)
    }
  }

  /** Inserts what is worth it, whatever loses most by waiting first; regret over the two best. */
  private insertAll(jobs: readonly number[], noise: number): void {
    this.copy()
    const open = new Map<number, Offer>()
    for (const job of jobs) if (!this.state.duties[job]!.length) open.set(job, this.offer(job, noise ? 1 + noise * (this.share() - 0.5) : 1))
    for (;;) {
      let next: Offer | null = null
      for (const offer of open.values()) if (offer.best && offer.regret > (next?.regret ?? -Infinity)) next = offer
      if (!next) return
      const { job, into, pin } = next.best!
      open.delete(job)
      if (pin >= 0) this.pin(job, pin)
      for (const { duty, at } of into) this.replace(duty, insertedAt(this.state.routes[duty]!.stops, at, job), [job])
      const changed = into.map(({ duty }) => duty)
      for (const [other, offer] of open) if (this.touches(other, offer, changed)) open.set(other, this.offer(other, offer.noise))
    }
  }
  /**
   * Inserts one after another where each costs least, in an order by chance: which is quicker, and now and then passes over a
   * duty, so that it does not always come out the same (Christiaens and Vanden Berghe 2020, Transportation Science 54(2), from memory).
   */
  private insertInTurn(jobs: readonly number[]): void {
    const { ready } = this
    const by = this.below(4)
    const rank = new Map(
      jobs.map((job) => [
        job,
        by === 0
          ? this.share()
          : by === 1
            ? -ready.left[job]!
            : by === 2
              ? -ready.jobs[job]!.minutes
              : Math.min(ready.latest[job]!, ready.jobs[job]!.target ?? 1e9),
      ]),
    )
    this.copy()
    for (const job of [...jobs].sort((a, b) => rank.get(a)! - rank.get(b)! || a - b)) {
      if (this.state.duties[job]!.length) continue
      const { best } = ready.jobs[job]!.people > 1 ? this.together(job) : this.alone(job, PASSED_OVER)
      if (!best || best.more >= ready.left[job]!) continue
      if (best.pin >= 0) this.pin(job, best.pin)
      for (const { duty, at } of best.into) this.replace(duty, insertedAt(this.state.routes[duty]!.stops, at, job), [job])
    }
  }
  /** Whether a change of these duties may make another offer of it: they were its best, or would be now. */
  private touches(job: number, offer: Offer, changed: readonly number[]): boolean {
    const own = this.dutiesOf[job]!
    return changed.some((duty) => {
      if (!includesSorted(own, duty)) return false
      if (offer.duties.includes(duty)) return true
      const { people } = this.ready.jobs[job]!
      if (people === 1) return this.bestIn(duty, job).more < offer.second
      return this.fitsIn(duty, job).some(({ more }) => more * people < (offer.best?.more ?? Infinity))
    })
  }
  private offer(job: number, noise: number): Offer {
    const left = this.ready.left[job]!
    const found = this.ready.jobs[job]!.people > 1 ? this.together(job) : this.alone(job)
    if (!found.best || found.best.more >= left) return { ...found, best: null, regret: 0, noise }
    const regret = Math.min(found.second, left) - found.best.more
    // What is worth most to do at all decides between those with one way only.
    return { ...found, regret: (regret + 0.01 * left) * noise, noise }
  }
  private alone(job: number, passesOver = 0): Ways {
    let best: { duty: number; at: number; more: number } | null = null
    let [second, secondDuty] = [Infinity, -1]
    for (const duty of this.dutiesOf[job]!) {
      if (passesOver && this.below(100) < passesOver) continue
      const one = this.bestIn(duty, job)
      if (one.more >= second) continue
      if (best && one.more >= best.more) [second, secondDuty] = [one.more, duty]
      else {
        ;[second, secondDuty] = [best?.more ?? Infinity, best?.duty ?? -1]
        best = { duty, at: one.at, more: one.more }
      }
    }
    if (!best || best.more === Infinity) return { best: null, second, duties: [] }
    return { best: { job, more: best.more, pin: -1, into: [best] }, second, duties: [best.duty, secondDuty] }
  }
  private bestIn(duty: number, job: number): { at: number; more: number } {
    const route = this.state.routes[duty]!
    let known = this.known.get(route)
    if (!known) this.known.set(route, (known = new Map()))
    let found = known.get(job)
    if (!found) known.set(job, (found = this.routes.best(route, job) ?? NOWHERE))
    return found
  }
  /** Several at once: of each time at which as many can go as it takes, the cheapest of them. */
  private together(job: number): Ways {
    const { people } = this.ready.jobs[job]!
    const byStart = new Map<number, { duty: number; at: number; more: number }[]>()
    for (const duty of this.dutiesOf[job]!)
      for (const { start, at, more } of this.fitsIn(duty, job)) {
        const going = byStart.get(start)
        if (going) going.push({ duty, at, more })
        else byStart.set(start, [{ duty, at, more }])
      }
    let best: Insertion | null = null
    let second = Infinity
    for (const [pin, able] of byStart) {
      const going = this.cheapest(able, people)
      if (!going) continue
      const more = going.reduce((sum, one) => sum + one.more, 0)
      if (best && (more > best.more || (more === best.more && pin > best.pin))) second = Math.min(second, more)
      else {
        second = best?.more ?? Infinity
        best = { job, more, pin, into: going.map(({ duty, at }) => ({ duty, at })) }
      }
    }
    return { best, second, duties: best?.into.map(({ duty }) => duty) ?? [] }
  }
  /** So many different people. */
  private cheapest<One extends { duty: number; more: number }>(able: One[], people: number): One[] | null {
    if (able.length < people) return null
    const { duties } = this.ready.problem
    const found: One[] = []
    for (const one of able.sort((a, b) => a.more - b.more || a.duty - b.duty)) {
      if (found.some(({ duty }) => duties[duty]!.technician === duties[one.duty]!.technician)) continue
      if (found.push(one) === people) return found
    }
    return null
  }
  /** At each time at which somebody can go to a job with others, where it costs least in their route. */
  private fitsIn(duty: number, job: number): Fit[] {
    const route = this.state.routes[duty]!
    let known = this.knownFits.get(route)
    if (!known) this.knownFits.set(route, (known = new Map()))
    let found = known.get(job)
    if (found) return found
    found = []
    const { from } = this.ready.problem.duties[duty]!
    const last = this.routes.lastStart(duty, job)
    const now = this.ready.jobs[job]!.now
    const first = Math.max(from, this.ready.earliest[job]!)
    const starts = now && now.start >= first && now.start <= last && now.start % PROMISE_STEP_MINUTES ? [now.start] : []
    for (let start = stepUp(first, PROMISE_STEP_MINUTES); start <= last; start += PROMISE_STEP_MINUTES) starts.push(start)
    const before = this.routes.pins[job]!
    for (const start of starts) {
      this.routes.pins[job] = start
      const one = this.routes.best(route, job)
      if (one) found.push({ start, ...one })
    }
    this.routes.pins[job] = before
    known.set(job, found)
    return found
  }

  private below(many: number): number {
    return many > 1 ? uniformInt(this.random, 0, many - 1) : 0
  }
  private share(): number {
    return uniformInt(this.random, 0, 999_999) / 1_000_000
  }
}

/** Whether a number is among numbers that ascend. */
function includesSorted(numbers: readonly number[], wanted: number): boolean {
  let [low, high] = [0, numbers.length - 1]
  while (low <= high) {
    const middle = (low + high) >> 1
    const here = numbers[middle]!
    if (here === wanted) return true
    if (here < wanted) low = middle + 1
    else high = middle - 1
  }
  return false
}

const insertedAt = (stops: readonly number[], at: number, job: number): number[] => [...stops.slice(0, at), job, ...stops.slice(at)]

/**
 * Of what is planned now, what no hard rule speaks against as it stands: with whom, when, and with the way between. Where two
 * lie over each other, the one that begins first stays.
 */
export function keptNow(ready: Ready, routes: Routes): { job: number; duties: number[] }[] {
  const { duties } = ready.problem
  const people = ready.problem.technicians.length
  const kept: { job: number; duties: number[] }[] = []
  const lines = duties.map(({ blocks }, duty) => blocks.map(({ from, until }, n) => ({ from, until, place: routes.placeOf(duty, -1 - n), isJob: false })))
  const planned = ready.jobs.map((job, index) => ({ index, job, now: job.now })).filter(({ now }) => now)
  for (const { index, job, now } of planned.sort((a, b) => a.now!.start - b.now!.start || a.index - b.index)) {
    const { start, technicians } = now!
    const until = start + job.minutes
    if (technicians.length !== job.people || start < ready.earliest[index]! || start > ready.latest[index]!) continue
    const here = ready.placeOf[index]!
    const fitting = technicians.map((technician) =>
      duties.findIndex((duty, d) => {
        if (duty.technician !== technician || !ready.able[index * people + technician]) return false
        if (start < duty.from || start > routes.lastStart(d, index)) return false
        const [before, after] = [lines[d]!.findLast((one) => one.from <= start), lines[d]!.find((one) => one.from > start)]
        const startsLate = !before || before.until + ready.way[before.place * ready.places + here]! <= start
        return startsLate && (!after || until + ready.way[here * ready.places + after.place]! <= after.from)
      }),
    )
    if (fitting.includes(-1)) continue
    for (const d of fitting) {
      lines[d]!.push({ from: start, until, place: here, isJob: true })
      lines[d]!.sort((a, b) => a.from - b.from)
    }
    kept.push({ job: index, duties: fitting })
  }
  return kept
}
