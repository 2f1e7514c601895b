import path from 'node:path'
import loadHighs from 'highs'
import { Piscina } from 'piscina'
import { readBoard } from '#contract/board'
import { computeDayPlan, readDayPlan } from '#contract/dayplans'
import { boundOf, figuresOf, insertPlan, inventProblem, searchPlan, standingPlan } from '#core/dayplans'
import type { MadePlan } from '#core/dayplans'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { median } from './table'
import type { Measure } from './table'

const DAY_SECONDS = 5
const BOUND_SECONDS = 60
const WEEK_SECONDS = 60
const OVER_BOUND = 0.05
const MEANWHILE = 2

/**
 * Eight jobs each: a day that has room for them, also with some for two. And one that is asked for a quarter more than it has,
 * where what is left decides: it is shown for what it is, the bound of a day that can be worked is no limit of it.
 */
const DAYS = [
  ['which the day holds', { teams: 0, longest: 5 }, OVER_BOUND],
  ['which the day holds, 5 % of them for two', { teams: 0.05, longest: 5 }, OVER_BOUND],
  ['a quarter more than the day holds', { teams: 0, longest: 8 }, null],
] as const

/** Plans of a day and of a week: how soon, how good beside inserting alone and beside what none can beat, and what else is answered meanwhile. */
export async function measureDayPlans(_: House, server: Running): Promise<Measure[]> {
  const highs = await loadHighs()
  const measures: Measure[] = []
  for (const [day, shape, overBound] of DAYS) {
    const problem = inventProblem({ jobs: 200, technicians: 25, seed: 7, ...shape })
    const began = Date.now()
    const { cost, routes, rounds } = searchPlan(problem, { seed: 1, rounds: 1_000_000, stop: () => Date.now() - began > (DAY_SECONDS - 0.5) * 1000 })
    const took = Date.now() - began
    const since = Date.now()
    const bound = boundOf(
      problem,
      highs,
      routes,
      () => Date.now() - since > BOUND_SECONDS * 1000,
      () => Date.now() - since > BOUND_SECONDS * 600,
    )
    const named = `200 jobs, 25 technicians, ${day}`
    measures.push(
      { what: named, measured: `${took} ms, ${rounds} rounds`, limit: `${DAY_SECONDS} s`, kept: took <= DAY_SECONDS * 1000 },
      {
        what: 'its cost beside inserting alone, beside what stood, and beside the bound',
        measured: `${cost.toFixed(0)}; ${insertPlan(problem).cost.toFixed(0)}; ${figuresOf(problem, standingPlan(problem)).cost.toFixed(0)}; ${bound ? `${bound.value.toFixed(0)} (${((cost / bound.value - 1) * 100).toFixed(1)} % above), ${((Date.now() - since) / 1000).toFixed(0)} s` : 'no bound'}`,
        limit: overBound === null ? 'a bound, within 60 s' : `${overBound * 100} % above the bound`,
        kept: bound !== null && (overBound === null || cost <= bound.value * (1 + overBound)),
      },
    )
  }
  const desk = await new Client(server.url).signIn('maren.quill')
  measures.push(await measureDemoDay(desk))
  const answer = async () => {
    const began = performance.now()
    await desk.must(readBoard, { siteId: 1 })
    return performance.now() - began
  }
  const idle = median(await inTurn(12, answer))
  const thread = new Piscina({ filename: path.resolve('dist/server/dayPlan.worker.js'), maxThreads: 1 })
  const problem = inventProblem({ jobs: 1_000, technicians: 100, days: 5, seed: 7 })
  const began = Date.now()
  const made = thread.run({ problem, whatIf: [], seconds: WEEK_SECONDS - 20, seed: 1 }) as Promise<MadePlan>
  const meanwhile = median(await inTurn(25, answer))
  const plan = await made
  const took = (Date.now() - began) / 1000
  await thread.destroy()
  return [
    ...measures,
    {
      what: '1,000 jobs, 100 technicians, five days',
      measured: `${took.toFixed(0)} s, ${plan.rounds} rounds; cost ${plan.then.cost.toFixed(0)}, by inserting alone ${plan.inserted.toFixed(0)}`,
      limit: `${WEEK_SECONDS} s`,
      kept: took <= WEEK_SECONDS,
    },
    {
      what: 'the Board read meanwhile, beside with nothing else going on',
      measured: `${meanwhile.toFixed(0)} ms, ${(meanwhile / idle).toFixed(2)} x (idle ${idle.toFixed(0)} ms)`,
      limit: `${MEANWHILE} x`,
      kept: meanwhile <= idle * MEANWHILE,
    },
  ]
}

/** The day of the demo world, beside what its desk has planned by hand; as the desk has it computed. */
async function measureDemoDay(desk: Client): Promise<Measure> {
  const { id } = await desk.must(computeDayPlan, { siteId: 1, seconds: DAY_SECONDS })
  const began = Date.now()
  let plan = await desk.must(readDayPlan, { siteId: 1, planId: id })
  while ((plan.state === 'waiting' || plan.bound.state === 'computing') && Date.now() - began < 2 * BOUND_SECONDS * 1000) {
    await new Promise((resolve) => setTimeout(resolve, 500))
    plan = await desk.must(readDayPlan, { siteId: 1, planId: id })
  }
  const { now, then, inserted, people, moves } = plan.result!
  const bound = plan.bound.state === 'known' ? plan.bound.value : null
  return {
    what: `the demo’s own day, ${people} technicians: its cost beside inserting alone, beside what is planned by hand, and beside the bound`,
    measured: `${then.cost.toFixed(0)}; ${inserted.toFixed(0)}; ${now.cost.toFixed(0)}; ${bound === null ? 'no bound' : `${bound.toFixed(0)} (${((then.cost / bound - 1) * 100).toFixed(1)} % above)`}; ${moves.length} moves`,
    limit: `${OVER_BOUND * 100} % above the bound`,
    kept: bound !== null && then.cost <= bound * (1 + OVER_BOUND),
  }
}

async function inTurn(times: number, ask: () => Promise<number>): Promise<number[]> {
  const took: number[] = []
  for (let n = 0; n < times; n++) took.push(await ask())
  return took
}
