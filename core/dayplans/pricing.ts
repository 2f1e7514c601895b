import { PLAN_STEP_MINUTES, PROMISE_STEP_MINUTES } from './model'
import type { PlanDuty } from './model'
import type { Column } from './master'
import type { Ready } from './ready'

/** So many jobs near a job are remembered while a route goes on from it. */
const NEAR = 8
/** So many routes of a duty are taken up at once. */
const TAKEN = 6

/**
 * Finds the routes of a duty that are worth most at some prices: labels over time, one beaten by another that is over no later,
 * costs no more and has no more behind it that cannot be done again (resource-constrained shortest paths: Feillet and
 * others 2004, Networks 44(3)). What was done is only remembered among jobs near one another (ng-routes: Baldacci, Mingozzi
 * and Roberti 2011, Operations Research 59(5); both from memory), so that a route may come back to a job after a long way round:
 * there are more routes than there should be, and what is least among them is no more than the least there is. Jobs for several
 * begin as it suits each of them, which makes it no more, either.
 */
export class Pricing {
  /** For each job those near it, itself first. */
  private readonly near: number[][]
  /** Where one job stands among those near another; -1 where it does not. */
  private readonly nearAt: Int8Array
  private readonly candidates: number[][]

  constructor(private readonly ready: Ready) {
    const { jobs, problem } = ready
    const people = problem.technicians.length
    const shared = jobs.map(({ able }) => new Set(able))
    this.near = jobs.map((job, j) => {
      const others = jobs.flatMap((other, k) => {
        if (k === j || !other.able.some((t) => shared[j]!.has(t))) return []
        return [{ k, way: ready.wayBetween(job.place, other.place) + ready.wayBetween(other.place, job.place) + (other.minutes + job.minutes) / 8 }]
      })
      return [
        j,
        ...others
          .sort((a, b) => a.way - b.way || a.k - b.k)
          .slice(0, NEAR - 1)
          .map(({ k }) => k),
      ]
    })
    this.nearAt = new Int8Array(jobs.length * jobs.length).fill(-1)
    this.near.forEach((near, j) => near.forEach((k, at) => (this.nearAt[j * jobs.length + k] = at)))
    this.candidates = problem.duties.map(({ technician, from, until, overtime }) =>
      jobs.flatMap((job, j) => {
        const last = Math.min(ready.latest[j]!, until + overtime - job.minutes)
        return ready.able[j * people + technician] && Math.max(from, ready.earliest[j]!) <= last ? [j] : []
      }),
    )
  }

  /**
   * @param prices of the jobs, nought or more
   * @param exact whether what was done counts when one is beaten by another; without, good routes are found sooner, not the least
   * @param below only routes that come to less are looked for; nought at the most
   * @returns what no route of the duty comes below, less the prices of its jobs; and some of the best
   */
  best(duty: number, prices: Float64Array, exact: boolean, below: number): { least: number; columns: Column[] } {
    return new Pass(this.ready, duty, this.candidates[duty]!, this.near, this.nearAt, prices, exact, below).run()
  }
}

/**
 * One pass over the time of one duty, back and forth: back, from each stop and time the least that can still follow when nothing
 * is remembered; forth, labels, of which those are dropped that cannot come below what is asked for even so.
 */
class Pass {
  /** Of labels, in columns. A node is a job or the last block, after so many blocks. */
  private readonly node: number[] = []
  private readonly time: number[] = []
  private readonly cost: number[] = []
  private readonly mask: number[] = []
  private readonly before: number[] = []
  private readonly atMinute: (number[] | undefined)[] = []
  /** By node, labels that went on, none beaten by another. */
  private readonly went: number[][]
  private readonly cheapest: Float64Array
  /** Without what was done remembered, one label for each node and minute is enough. */
  private readonly cheapestAt: Float64Array
  private readonly minutes: number
  /** What routes that are looked for come below. */
  private limit = 0
  private readonly done: { cost: number; label: number }[] = []
  private readonly duty: PlanDuty
  private readonly nodes: number
  private readonly bare: number
  private readonly blockPlace: number[]
  /** Jobs near each block. */
  private readonly nearBlock: number[][]
  /** By node and step of time: the least that follows a stop that is over then. */
  private readonly follows: Float64Array
  private readonly steps: number

  constructor(
    private readonly ready: Ready,
    private readonly dutyAt: number,
    private readonly jobs: readonly number[],
    private readonly near: readonly number[][],
    private readonly nearAt: Int8Array,
    private readonly prices: Float64Array,
    private readonly exact: boolean,
    private readonly below: number,
  ) {
    this.duty = ready.problem.duties[dutyAt]!
    this.blockPlace = this.duty.blocks.map(({ place }) => place ?? ready.nowhere)
    this.nearBlock = this.blockPlace.map((place) =>
      [...jobs].sort((a, b) => this.way(place, ready.placeOf[a]!) - this.way(place, ready.placeOf[b]!) || a - b).slice(0, NEAR),
    )
    this.nodes = (jobs.length + 1) * (this.duty.blocks.length + 1)
    this.went = Array.from({ length: this.nodes }, () => [])
    // What stays as it is may last longer than the shift.
    const last = Math.max(this.duty.until + this.duty.overtime, this.duty.blocks.at(-1)?.until ?? 0)
    this.minutes = last - this.duty.from + 1
    this.cheapest = new Float64Array(this.nodes).fill(Infinity)
    this.cheapestAt = new Float64Array(exact ? 0 : this.nodes * this.minutes).fill(Infinity)
    this.bare = this.bareCost()
    this.firstStart = Math.floor(this.duty.from / PLAN_STEP_MINUTES)
    this.steps = Math.ceil(last / PLAN_STEP_MINUTES) - this.firstStart + 1
    this.follows = new Float64Array(this.nodes * this.steps).fill(Infinity)
    const many = jobs.length
    this.placeAt = new Int32Array(many)
    this.long = new Int32Array(many)
    this.early = new Int32Array(many)
    this.own = new Float64Array(many)
    this.stands = new Int32Array(many)
    this.stepOf = new Int32Array(many)
    this.last = new Int32Array(many * (this.duty.blocks.length + 1))
    this.starts = this.steps + PROMISE_STEP_MINUTES / PLAN_STEP_MINUTES + 1
    this.startCosts = new Float64Array(many * this.starts)
    // At the most every quarter of an hour of each job that was promised.
    const most = 1 + many * (2 + Math.ceil(this.minutes / PROMISE_STEP_MINUTES))
    this.tellNode = new Int32Array(most)
    this.tellOver = new Int32Array(most)
    this.tellCost = new Float64Array(most)
    this.lookUp()
    this.lookBack()
  }
  /** What is asked of each job over and over, by where it stands among those of the duty. */
  private readonly placeAt: Int32Array
  private readonly long: Int32Array
  private readonly early: Int32Array
  private readonly own: Float64Array
  private readonly stands: Int32Array
  private readonly stepOf: Int32Array
  private readonly last: Int32Array
  private readonly startCosts: Float64Array
  private readonly starts: number
  private readonly firstStart: number
  private readonly tellNode: Int32Array
  private readonly tellOver: Int32Array
  private readonly tellCost: Float64Array

  run(): { least: number; columns: Column[] } {
    // What the best could come to shows how far to look: first only for what comes near it, then for ever more.
    const hoped = this.hoped()
    for (const share of this.exact ? [0] : [0.75, 0.5, 0.25, 0]) {
      this.limit = Math.min(this.below, share * hoped)
      this.clear()
      this.goForth()
      if (this.done.length || hoped >= this.below) break
    }
    this.done.sort((a, b) => a.cost - b.cost || a.label - b.label)
    const columns: Column[] = []
    const sets = new Set<string>()
    for (const { cost, label } of this.done) {
      if (cost >= this.below || columns.length >= TAKEN) break
      const jobs = this.jobsTo(label)
      const key = [...jobs].sort((a, b) => a - b).join()
      if (sets.has(key)) continue
      sets.add(key)
      columns.push({ duty: this.dutyAt, jobs, cost: cost + jobs.reduce((sum, job) => sum + this.prices[job]!, 0) })
    }
    // None was looked for that does not come below; so the least may be as much, and is no less.
    return { least: Math.min(0, this.done[0]?.cost ?? 0, this.below), columns }
  }

  private hoped(): number {
    let least = Infinity
    for (let told = this.ways(null, this.duty.start ?? this.ready.nowhere, this.duty.from, 0) - 1; told >= 0; told--)
      least = Math.min(least, this.tellCost[told]! + this.follows[this.tellNode[told]! * this.steps + this.stepAt(this.tellOver[told]!)]!)
    return least - this.bare
  }
  private clear(): void {
    for (const column of [this.node, this.time, this.cost, this.mask, this.before, this.atMinute]) column.length = 0
    for (const went of this.went) went.length = 0
    this.cheapest.fill(Infinity)
    this.cheapestAt.fill(Infinity)
  }
  private goForth(): void {
    this.goOn(-1, null, this.duty.from, 0, 0, 0)
    for (let minute = 0; minute < this.atMinute.length; minute++)
      for (const label of this.atMinute[minute] ?? []) {
        const [node, cost] = [this.node[label]!, this.cost[label]!]
        if (this.isBeaten(node, cost, this.mask[label]!)) continue
        if (this.exact) this.went[node]!.push(label)
        this.cheapest[node] = Math.min(this.cheapest[node]!, cost)
        this.goOn(label, this.stopOf(node), this.time[label]!, cost, this.mask[label]!, this.blocksOf(node))
      }
  }

  private way(from: number, to: number): number {
    return this.ready.way[from * this.ready.places + to]!
  }
  private nodeOf(blocks: number, at: number): number {
    return blocks * (this.jobs.length + 1) + at
  }
  private blocksOf(node: number): number {
    return Math.floor(node / (this.jobs.length + 1))
  }
  /** A job by its number, a block as -1, -2, … */
  private stopOf(node: number): number {
    const at = node % (this.jobs.length + 1)
    return at < this.jobs.length ? this.jobs[at]! : -this.blocksOf(node)
  }
  private placeOf(stop: number): number {
    return stop >= 0 ? this.ready.placeOf[stop]! : this.blockPlace[-1 - stop]!
  }
  private endCost(place: number, time: number): number {
    const { travel, overtime } = this.ready.problem.weights
    return this.way(place, this.duty.end ?? this.ready.nowhere) * travel + Math.max(0, time - this.duty.until) * overtime
  }

  /**
   * The steps of time, the latest first: what the rest costs at the least for who could begin a job from then on, and from that what
   * can follow a stop that is over then.
   */
  private lookBack(): void {
    const { blocks } = this.duty
    const { places, way: ways, problem } = this.ready
    const { travel } = problem.weights
    const many = this.jobs.length
    const begun = new Float64Array((blocks.length + 1) * many * this.steps).fill(Infinity)
    const stops = [...this.placeAt, 0]
    for (let step = this.steps - 1; step >= 0; step--) {
      const time = (this.firstStart + step) * PLAN_STEP_MINUTES
      for (let passed = blocks.length; passed >= 0; passed--) {
        if (!this.isAt(passed, time)) continue
        const own = begun.subarray(passed * many * this.steps, (passed + 1) * many * this.steps)
        for (let at = 0; at < many; at++) own[at * this.steps + step] = this.begun(passed, at, time)
        const block = blocks[passed]
        const afterBlock = block ? this.follows[this.nodeOf(passed + 1, many) * this.steps + this.stepAt(block.until)]! : Infinity
        if (passed) stops[many] = this.blockPlace[passed - 1]!
        for (let at = 0; at < many + (passed ? 1 : 0); at++) {
          const place = stops[at]!
          const off = place * places
          let least = block ? Infinity : this.endCost(place, time)
          if (block) {
            const way = ways[off + this.blockPlace[passed]!]!
            if (at === many || time + way <= block.from) least = way * travel + afterBlock
          }
          for (let next = 0; next < many; next++) {
            const way = ways[off + this.placeAt[next]!]!
            const then = step + (((way + PLAN_STEP_MINUTES - 1) / PLAN_STEP_MINUTES) | 0)
            if (then >= this.steps) continue
            const whole = way * travel + own[next * this.steps + then]!
            if (whole < least) least = whole
          }
          this.follows[this.nodeOf(passed, at) * this.steps + step] = least
        }
      }
    }
  }
  /** The least that a job and all after it cost for who is there at a time on a whole step. */
  private begun(passed: number, at: number, time: number): number {
    const latest = this.last[passed * this.jobs.length + at]!
    const reached = Math.max(time, this.early[at]!)
    if (reached > latest) return Infinity
    const node = this.nodeOf(passed, at) * this.steps
    const from = (start: number) => this.ready.startCost(this.jobs[at]!, start) + this.follows[node + this.stepAt(start + this.long[at]!)]!
    const step = this.stepOf[at]!
    const stand = this.stands[at]!
    const first = Math.ceil(reached / step) * step
    const waits = reached <= stand && stand <= latest
    let least = waits ? from(stand) : Infinity
    if (reached <= stand && step === PROMISE_STEP_MINUTES)
      for (let start = first; start < stand && start <= latest; start += step) least = Math.min(least, from(start))
    else if (first <= latest) least = Math.min(least, from(first))
    return least + this.own[at]!
  }
  /** Whether it can be then with so many blocks passed, a step more or less. */
  private isAt(passed: number, time: number): boolean {
    const { blocks } = this.duty
    const [before, after] = [blocks[passed - 1], blocks[passed]]
    return (!before || time + PLAN_STEP_MINUTES > before.until) && (!after || time <= after.from)
  }
  private stepAt(time: number): number {
    const step = Math.floor(time / PLAN_STEP_MINUTES) - this.firstStart
    return step < 0 ? 0 : step >= this.steps ? this.steps - 1 : step
  }

  /** Everything that may come after a stop, into columns: the node, when it is over, and what it costs less its price. */
  private ways(stop: number | null, place: number, time: number, passed: number): number {
    const { ready, tellNode, tellOver, tellCost, placeAt, early, long, stands, stepOf, own, startCosts, starts, firstStart } = this
    const { way: ways } = ready
    const { travel } = ready.problem.weights
    const block = this.duty.blocks[passed]
    const off = place * ready.places
    const many = this.jobs.length
    let told = 0
    if (block) {
      const way = ready.way[off + this.blockPlace[passed]!]!
      if (stop === null || stop < 0 || time + way <= block.from) {
        tellNode[told] = this.nodeOf(passed + 1, this.jobs.length)
        tellOver[told] = block.until
        tellCost[told++] = way * travel
      }
    }
    const first = passed * (many + 1)
    const last = this.last.subarray(passed * many, (passed + 1) * many)
    const goes = stop === null ? 0 : 1
    for (let at = 0; at < many; at++) {
      const way = ways[off + placeAt[at]!]!
      const gone = time + goes * way
      const reached = gone > early[at]! ? gone : early[at]!
      const latest = last[at]!
      if (reached > latest) continue
      const step = stepOf[at]!
      const start = (((reached + step - 1) / step) | 0) * step
      const cost = way * travel + own[at]!
      const stand = stands[at]!
      const waits = reached <= stand && stand <= latest
      if (reached <= stand && step === PROMISE_STEP_MINUTES)
        for (let sooner = start; sooner < stand && sooner <= latest; sooner += step) {
          tellNode[told] = first + at
          tellOver[told] = sooner + long[at]!
          tellCost[told++] = cost + startCosts[at * starts + sooner / PLAN_STEP_MINUTES - firstStart]!
        }
      else if (start <= latest) {
        tellNode[told] = first + at
        tellOver[told] = start + long[at]!
        tellCost[told++] = cost + startCosts[at * starts + start / PLAN_STEP_MINUTES - firstStart]!
      }
      if (waits) {
        tellNode[told] = first + at
        tellOver[told] = stand + long[at]!
        tellCost[told++] = cost + ready.startCost(this.jobs[at]!, stand)
      }
    }
    return told
  }
  private lookUp(): void {
    const { ready } = this
    const { from, until, overtime, technician, blocks } = this.duty
    const people = ready.problem.technicians.length
    this.jobs.forEach((job, at) => {
      const { minutes, now } = ready.jobs[job]!
      const here = ready.placeOf[job]!
      this.placeAt[at] = here
      this.long[at] = minutes
      this.early[at] = Math.max(from, ready.earliest[job]!)
      this.own[at] = ready.person[job * people + technician]! - this.prices[job]!
      this.stands[at] = now?.start ?? -1
      this.stepOf[at] = now?.promised ? PROMISE_STEP_MINUTES : PLAN_STEP_MINUTES
      for (let passed = 0; passed <= blocks.length; passed++) {
        const room = passed < blocks.length ? blocks[passed]!.from - this.way(here, this.blockPlace[passed]!) : Infinity
        this.last[passed * this.jobs.length + at] = Math.min(ready.latest[job]!, until + overtime - minutes, room - minutes)
      }
      for (let n = 0; n < this.starts; n++) this.startCosts[at * this.starts + n] = ready.startCost(job, (this.firstStart + n) * PLAN_STEP_MINUTES)
    })
  }

  private goOn(label: number, stop: number | null, time: number, cost: number, mask: number, passed: number): void {
    const place = stop === null ? (this.duty.start ?? this.ready.nowhere) : this.placeOf(stop)
    if (stop !== null && passed === this.duty.blocks.length) {
      const whole = cost + this.endCost(place, time) - this.bare
      if (whole < this.limit) this.done.push({ cost: whole, label })
    }
    const told = this.ways(stop, place, time, passed)
    for (let n = 0; n < told; n++) {
      const [node, over, whole] = [this.tellNode[n]!, this.tellOver[n]!, cost + this.tellCost[n]!]
      if (whole + this.follows[node * this.steps + this.stepAt(over)]! - this.bare >= this.limit) continue
      const next = this.stopOf(node)
      if (next >= 0 && this.isDone(stop, mask, next)) continue
      this.add(label, node, over, whole, this.carried(stop, mask, next))
    }
  }

  private nearOf(stop: number): readonly number[] {
    return stop >= 0 ? this.near[stop]! : this.nearBlock[-1 - stop]!
  }
  private isDone(stop: number | null, mask: number, job: number): boolean {
    if (stop === null || !mask) return false
    const at = stop >= 0 ? this.nearAt[stop * this.ready.jobs.length + job]! : this.nearOf(stop).indexOf(job)
    return at >= 0 && (mask & (1 << at)) !== 0
  }
  /** What of it is remembered at the next stop, with that itself. */
  private carried(stop: number | null, mask: number, next: number): number {
    let found = next >= 0 ? 1 : 0
    if (stop === null) return found
    const near = this.nearOf(stop)
    for (let bit = 0; bit < near.length; bit++) {
      if (!(mask & (1 << bit))) continue
      const there = next >= 0 ? this.nearAt[next * this.ready.jobs.length + near[bit]!]! : this.nearOf(next).indexOf(near[bit]!)
      if (there >= 0) found |= 1 << there
    }
    return found
  }

  /** Those that went on are over no later than any that is still to go on. */
  private isBeaten(node: number, cost: number, mask: number): boolean {
    if (cost < this.cheapest[node]! - 1e-9) return false
    if (!this.exact) return true
    for (const other of this.went[node]!) if (this.cost[other]! <= cost + 1e-9 && (this.mask[other]! & ~mask) === 0) return true
    return false
  }
  private add(before: number, node: number, time: number, cost: number, mask: number): void {
    if (this.isBeaten(node, cost, mask)) return
    const minute = time - this.duty.from
    if (!this.exact) {
      const slot = node * this.minutes + minute
      if (cost >= this.cheapestAt[slot]!) return
      this.cheapestAt[slot] = cost
    }
    const label = this.node.length
    this.node.push(node)
    this.time.push(time)
    this.cost.push(cost)
    this.mask.push(mask)
    this.before.push(before)
    ;(this.atMinute[minute] ??= []).push(label)
  }
  private jobsTo(label: number): number[] {
    const jobs: number[] = []
    for (let at = label; at >= 0; at = this.before[at]!) {
      const stop = this.stopOf(this.node[at]!)
      if (stop >= 0) jobs.push(stop)
    }
    return jobs.reverse()
  }
  private bareCost(): number {
    const { blocks, start, until } = this.duty
    if (!blocks.length) return 0
    const { travel } = this.ready.problem.weights
    const places = [start ?? this.ready.nowhere, ...this.blockPlace]
    const ways = this.blockPlace.reduce((sum, place, n) => sum + this.way(places[n]!, place), 0)
    return ways * travel + this.endCost(places.at(-1)!, Math.max(until, blocks.at(-1)!.until))
  }
}
