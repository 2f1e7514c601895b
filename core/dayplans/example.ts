import { figuresOf } from './make'
import type { PlanFigures } from './make'
import type { PlanProblem } from './model'
import { searchPlan } from './search'
import type { PlanWeights } from './weights'

export interface ExampleJob {
  name: string
  /** From midnight on, in minutes; null when it is left. */
  start: number | null
  who: string | null
  /** Minutes past its target. */
  late: number
}

const NAMES = ['Ada', 'Ben'] as const
const JOBS = [
  'Urgent leak, far away',
  'Routine light, promised to Ben at 10:00',
  'Routine door, whose asset Ben knows',
  'Urgent lift',
  'Deferred shelf',
  'Routine pump',
] as const
const ROUNDS = 400

/** A morning of two people and six jobs, planned by some weights: so that it can be seen what these change. */
export function exampleOf(weights: PlanWeights): { jobs: ExampleJob[]; figures: PlanFigures } {
  const problem = exampleProblem(weights)
  const { schedule } = searchPlan(problem, { seed: 1, rounds: ROUNDS })
  return {
    figures: figuresOf(problem, schedule),
    jobs: JOBS.map((name, j) => {
      const one = schedule[j]!
      const { target, minutes } = problem.jobs[j]!
      return {
        name,
        start: one?.start ?? null,
        who: one ? NAMES[one.technicians[0]!]! : null,
        late: one && target !== null ? Math.max(0, one.start + minutes - target) : 0,
      }
    }),
  }
}

function exampleProblem(weights: PlanWeights): PlanProblem {
  const both = [0, 1]
  const job = (place: number, minutes: number, priority: 'urgent' | 'routine' | 'deferred', target: number) => ({
    ...{ place, minutes, priority, target, people: 1, able: both, earliest: 480, window: null, always: true, lateAtOrigin: 0, known: [] as number[] },
    now: null as PlanProblem['jobs'][number]['now'],
  })
  return {
    jobs: [
      job(2, 60, 'urgent', 540),
      { ...job(1, 45, 'routine', 720), now: { start: 600, technicians: [1], promised: true } },
      { ...job(1, 60, 'routine', 660), known: [1] },
      job(0, 90, 'urgent', 600),
      job(1, 45, 'deferred', 720),
      job(0, 60, 'routine', 660),
    ],
    technicians: both.map(() => ({ normalPerHour: 4_000, overtimePerHour: 6_000 })),
    duties: both.map((technician) => ({ technician, from: 480, until: 660, overtime: 60, start: 0, end: 0, blocks: [] })),
    travel: [
      [0, 5, 25],
      [5, 0, 20],
      [25, 20, 0],
    ],
    working: [{ from: 480, until: 1_020 }],
    afterwards: 1_920,
    notBefore: 0,
    weights,
  }
}
