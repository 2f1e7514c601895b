import fc from 'fast-check'
import loadHighs from 'highs'
import type { Highs } from 'highs'
import { boundOf } from './bound'
import type { PlanProblem, Schedule } from './model'
import { afterMoves, movesOf, standingPlan, withNeeds } from './moves'
import { Pricer } from './price'
import { inventProblem } from './problems'
import { sumOf } from './ready'
import { insertPlan, searchPlan } from './search'
import { varied } from './whatIf'
import { apart } from '../../tests/kit/apart'
import type { Apart } from '../../tests/kit/apart'
import type { Reckoned } from './leastPlans'

let highs: Highs
beforeAll(async () => {
  highs = await loadHighs()
})

const costOf = (problem: PlanProblem, schedule: Schedule) => sumOf(new Pricer(problem).terms(schedule))
describe('against the least there can be (all routes enumerated, chosen among by HiGHS)', () => {
  /** Reckoned apart: through the runner all of it takes several times as long. */
  let reckoning: Apart
  beforeAll(async () => {
    reckoning = await apart(
      __dirname,
      `import { overBound, overLeast } from './leastPlans'
      const run = (what: string, sizes: string) => (what === 'least' ? overLeast(Number(sizes)) : overBound(JSON.parse(sizes)))`,
    )
  })
  afterAll(() => reckoning?.end())

  it('a plan of 8 jobs and 3 technicians is within 1 % on the average and never more than 5 %, and the bound is never above it', async () => {
    const all = await reckoning.run<Reckoned[]>('least', String(SMALL))
    expect(all).toHaveLength(SMALL)
    for (const { cost, bound, least } of all) {
      expect(bound).toBeLessThanOrEqual(least + 0.01)
      expect(cost).toBeGreaterThanOrEqual(least - 0.01)
    }
    const over = all.map(({ cost, least }) => (cost - least) / Math.max(1, Math.abs(least)))
    const mean = over.reduce((sum, one) => sum + one, 0) / over.length
    console.info(
      `Over the least there can be, ${SMALL} small problems: ${(mean * 100).toFixed(3)} % on the average, ${(Math.max(...over) * 100).toFixed(2)} % at the most.`,
    )
    expect(mean).toBeLessThanOrEqual(0.01)
    expect(Math.max(...over)).toBeLessThanOrEqual(0.05)
  })

  it('a plan of 40 to 60 jobs is within 3 % of its bound on the average', async () => {
    const all = await reckoning.run<Omit<Reckoned, 'least'>[]>('bound', '[40, 50, 60]')
    for (const { cost, bound, converged } of all) {
      expect(converged).toBe(true)
      expect(bound).toBeLessThanOrEqual(cost + 0.01)
    }
    const over = all.map(({ cost, bound }) => cost / bound - 1)
    const mean = over.reduce((sum, one) => sum + one, 0) / over.length
    console.info(`Over the bound, 40 to 60 jobs: ${over.map((one) => `${(one * 100).toFixed(2)} %`).join(', ')}.`)
    expect(mean).toBeLessThanOrEqual(0.03)
  })

  it('stopped early, the bound is still none that a plan comes below; stopped at once, there is none', () => {
    const problem = inventProblem({ jobs: 40, technicians: 6, seed: 3 })
    const { cost, routes } = searchPlan(problem, { seed: 1, rounds: 1_000 })
    let asked = 0
    const early = boundOf(problem, highs, routes, () => ++asked > 150)
    if (early) expect(early.value).toBeLessThanOrEqual(cost + 0.01)
    expect(boundOf(problem, highs, routes, () => true)).toBeNull()
  })
})

describe('every plan', () => {
  const problems = fc.record({
    jobs: fc.integer({ min: 1, max: 24 }),
    technicians: fc.integer({ min: 1, max: 6 }),
    days: fc.integer({ min: 1, max: 3 }),
    seed: fc.integer({ min: 1, max: 100_000 }),
    teams: fc.constantFrom(0, 0.3),
    planned: fc.constantFrom(0, 0.5, 1),
  })
  const each = (check: (problem: PlanProblem) => void) =>
    fc.assert(
      fc.property(problems, (shape) => check(inventProblem(shape))),
      { numRuns: 40 },
    )

  it('breaks no hard rule, costs what its terms come to, and never more than what stands or than inserting alone', () =>
    each((problem) => {
      const found = searchPlan(problem, { seed: 2, rounds: 60 })
      expect(new Pricer(problem).broken(found.schedule)).toEqual([])
      expect(found.cost).toBeCloseTo(costOf(problem, found.schedule), 4)
      expect(found.cost).toBeLessThanOrEqual(costOf(problem, standingPlan(problem)) + 1e-6)
      expect(found.cost).toBeLessThanOrEqual(found.inserted + 1e-6)
      expect(new Pricer(problem).broken(insertPlan(problem).schedule)).toEqual([])
    }))

  it('is the same for the same seed and rounds', () =>
    each((problem) => {
      const limits = { seed: 5, rounds: 40 }
      expect(searchPlan(problem, limits).schedule).toEqual(searchPlan(problem, limits).schedule)
    }))

  it('is explained by moves that make the whole difference, and made one by one with what they need it comes to the same', () =>
    each((problem) => {
      const { schedule, cost } = searchPlan(problem, { seed: 3, rounds: 40 })
      const moves = movesOf(problem, schedule)
      const difference = moves.reduce((sum, move) => sum + sumOf(move.terms), 0)
      expect(difference).toBeCloseTo(cost - costOf(problem, standingPlan(problem)), 4)
      let taken: number[] = []
      for (let n = 0; n < moves.length; n++) {
        taken = [...new Set([...taken, ...withNeeds(moves, [n])])]
        // What is made does not lie over what is still where it stood.
        const made = new Set(taken.map((at) => moves[at]!.job))
        const now = afterMoves(problem, moves, taken)
        const only = now.map((one, job) => (made.has(job) || JSON.stringify(one) === JSON.stringify(schedule[job]) ? one : null))
        expect(new Pricer(problem).broken(only)).toEqual([])
      }
      expect(afterMoves(problem, moves, taken)).toEqual(schedule)
    }))
})

describe('what a plan weighs', () => {
  const one = (change: Partial<PlanProblem['jobs'][number]>, duty: Partial<PlanProblem['duties'][number]> = {}): PlanProblem => {
    const whole = inventProblem({ jobs: 1, technicians: 1, seed: 1, planned: 0, windows: 0, teams: 0, blocks: 0 })
    const job = {
      ...whole.jobs[0]!,
      place: null,
      minutes: 60,
      people: 1,
      able: [0],
      earliest: 0,
      window: null,
      target: null,
      known: [],
      now: null,
      priority: 'routine' as const,
    }
    return {
      ...whole,
      jobs: [{ ...job, ...change }],
      duties: [{ ...whole.duties[0]!, from: 480, until: 960, overtime: 0, start: null, end: null, blocks: [], ...duty }],
    }
  }
  const plan = (problem: PlanProblem) => searchPlan(problem, { seed: 1, rounds: 20 }).schedule[0]
  const terms = (problem: PlanProblem, start: number) => new Pricer(problem).terms([{ start, technicians: [0] }])

  it.each([
    ['emergency', 16],
    ['urgent', 4],
    ['routine', 1],
    ['deferred', 0.25],
  ] as const)('counts each minute of %s past its target %d times', (priority, weight) => {
    expect(terms(one({ priority, target: 500, always: true }), 480).late).toBe(40 * weight)
  })
  it('counts lateness on the clock of the target: one that stops at night stands still until work begins', () => {
    // Ends at 22:00, its target was 16:30; work ends at 17:00 (1,020).
    expect(terms(one({ target: 990, always: false }), 1_260).late).toBe(30)
    expect(terms(one({ target: 990, always: true }), 1_260).late).toBe(330)
  })
  it('counts what was late before the days began', () => {
    expect(terms(one({ target: -600, always: true, lateAtOrigin: 600 }), 480).late).toBe(600 + 540)
  })
  it('weighs a promised visit by when it begins: nothing as it stands, 120 a little off, a minute more beyond a quarter of an hour', () => {
    const problem = one({ now: { start: 600, technicians: [0], promised: true } })
    expect(terms(problem, 600).moved).toBe(0)
    expect(terms(problem, 615).moved).toBe(120)
    expect(terms(problem, 660).moved).toBe(120 + 45)
    expect(terms(problem, 540).moved).toBe(120 + 45)
  })
  it('weighs overtime twice, and somebody who knows the asset less', () => {
    expect(terms(one({ known: [0] }, { overtime: 60 }), 930)).toMatchObject({ overtime: 60, knows: -10 })
  })
  it('leaves what costs more to do than to leave', () => {
    const dear = one({ priority: 'deferred', target: null, earliest: 930 }, { overtime: 120 })
    expect(plan(dear)).not.toBeNull()
    expect(plan({ ...dear, weights: { ...dear.weights, overtime: 10 } })).toBeNull()
  })
  it('begins within what was agreed, not before it can, and around what stays', () => {
    expect(plan(one({ window: { from: 700, until: 720 } }))).toMatchObject({ start: 700 })
    expect(plan(one({ earliest: 611 }))).toMatchObject({ start: 615 })
    expect(plan(one({}, { blocks: [{ from: 480, until: 555, place: null }] }))).toMatchObject({ start: 555 })
    expect(plan(one({ able: [] }))).toBeNull()
  })
  it('keeps a visit where it stands while nothing is gained, and moves it when it cannot be made', () => {
    const stands = one({ now: { start: 600, technicians: [0], promised: false } })
    expect(plan(stands)).toMatchObject({ start: 600 })
    const blocked = { ...stands, duties: [{ ...stands.duties[0]!, blocks: [{ from: 570, until: 650, place: null }] }] }
    expect(movesOf(blocked, [plan(blocked)!])).toMatchObject([{ cannotStand: true, from: { start: 600 } }])
  })
  it('sends as many as a job takes, together', () => {
    const problem = inventProblem({ jobs: 10, technicians: 5, seed: 4, teams: 1, trades: 1 })
    const { schedule } = searchPlan(problem, { seed: 1, rounds: 100 })
    expect(schedule.some((one) => one?.technicians.length === 2)).toBe(true)
  })
})

describe('what if', () => {
  const problem = inventProblem({ jobs: 30, technicians: 4, seed: 11, planned: 0 })
  const cost = (other: PlanProblem) => searchPlan(other, { seed: 1, rounds: 300 }).cost
  const now = cost(problem)
  it('one more person and overtime never make it dearer, one less never cheaper', () => {
    const slack = 0.03 * Math.abs(now)
    expect(cost(varied(problem, { kind: 'more', technician: 0 }))).toBeLessThanOrEqual(now + slack)
    expect(cost(varied(problem, { kind: 'overtime', minutes: 120 }))).toBeLessThanOrEqual(now + slack)
    expect(cost(varied(problem, { kind: 'off', technician: 0 }))).toBeGreaterThanOrEqual(now - slack)
  })
  it('moves a shift, not before now', () => {
    const { duties } = varied({ ...problem, notBefore: 400 }, { kind: 'start', technician: 1, minutes: -120 })
    for (const [n, { technician, from, until }] of duties.entries()) {
      const was = problem.duties[n]!
      expect([from, until]).toEqual(technician === 1 ? [Math.max(400, was.from - 120), was.until - 120] : [was.from, was.until])
    }
  })
  it('changes nothing of what it was asked about', () => {
    const before = JSON.stringify(problem)
    for (const what of [
      { kind: 'more', technician: 0 },
      { kind: 'off', technician: 1 },
      { kind: 'overtime', minutes: 30 },
    ] as const)
      varied(problem, what)
    expect(JSON.stringify(problem)).toBe(before)
  })
})

/** As many as the sums ask for. */
const SMALL = 200
