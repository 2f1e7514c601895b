import type { PlannedJob, PlanProblem, Schedule } from './model'
import { addTo, Pricer } from './price'
import { noTerms, Ready, TERMS } from './ready'
import type { Terms } from './ready'
import { keptNow } from './search'
import { Routes } from './routes'

/** One job that is planned otherwise than it stands, or can be made only now, with what that changes in the cost and what has to be changed with it. */
export interface PlanMove {
  job: number
  from: PlannedJob | null
  to: PlannedJob | null
  /** By so much each term grows; the moves of a plan together make the whole difference. */
  terms: Terms
  /** As it stands it cannot be made: somebody is away, or two lie over each other. */
  cannotStand: boolean
  /** Moves that have to be made as well, since their jobs are in its way where they stand. */
  needs: number[]
}

/** What is planned now, without what a hard rule speaks against as it stands. */
export function standingPlan(problem: PlanProblem): Schedule {
  const ready = new Ready(problem)
  const kept = new Set(keptNow(ready, new Routes(ready)).map(({ job }) => job))
  return problem.jobs.map(({ now }, job) => (kept.has(job) ? asPlanned(now) : null))
}

/** What a plan changes, by when it begins then; each explained by what it changes once those before it are made. */
export function movesOf(problem: PlanProblem, plan: Schedule): PlanMove[] {
  const pricer = new Pricer(problem)
  const now = problem.jobs.map(({ now }) => asPlanned(now))
  const made = standingPlan(problem)
  // What could not be made as it stands and can once others are moved is explained as well, though it stays.
  const order = plan
    .flatMap((to, job) => (isSame(now[job]!, to) && isSame(made[job]!, to) ? [] : [job]))
    .sort((a, b) => beginOf(plan[a]!, now[a]!) - beginOf(plan[b]!, now[b]!) || a - b)
  const stands = made.map((one) => one !== null)
  const by = pricer.jobsBy(made)
  const moves = order.map((job): PlanMove => {
    const [was, will] = [made[job]!, plan[job]!]
    // Only those who have it before or after go other ways.
    const concerned = [...new Set([...(was?.technicians ?? []), ...(will?.technicians ?? [])])]
    const terms = noTerms()
    const ways = (times: number) => concerned.forEach((technician) => addTo(terms, pricer.wayTerms(technician, by[technician]!, made), times))
    ways(-1)
    addTo(terms, pricer.jobTerms(job, was), -1)
    made[job] = will
    for (const technician of concerned) by[technician] = by[technician]!.filter((one) => one !== job)
    for (const technician of will?.technicians ?? []) by[technician]!.push(job)
    ways(1)
    addTo(terms, pricer.jobTerms(job, will))
    return { job, from: now[job]!, to: will, terms, cannotStand: now[job] !== null && !stands[job], needs: [] }
  })
  const ready = new Ready(problem)
  moves.forEach((move) => {
    move.needs = moves.flatMap((other, n) => (other !== move && isInTheWay(ready, move, other) ? [n] : []))
  })
  return moves
}
const asPlanned = (now: PlannedJob | null): PlannedJob | null => now && { start: now.start, technicians: [...now.technicians].sort((a, b) => a - b) }
const beginOf = (to: PlannedJob | null, from: PlannedJob | null) => to?.start ?? from?.start ?? 0
export const isSame = (a: PlannedJob | null, b: PlannedJob | null) =>
  a === b ||
  (a !== null &&
    b !== null &&
    a.start === b.start &&
    a.technicians.length === b.technicians.length &&
    a.technicians.every((one, n) => one === b.technicians[n]))

/** Whether a job, where it stands, is where another is to go, or too near to it for the way. */
function isInTheWay(ready: Ready, { job, to }: PlanMove, other: PlanMove): boolean {
  if (!to || !other.from || !other.from.technicians.some((one) => to.technicians.includes(one))) return false
  const [mine, theirs] = [ready.jobs[job]!, ready.jobs[other.job]!]
  const there = ready.wayBetween(mine.place, theirs.place)
  const back = ready.wayBetween(theirs.place, mine.place)
  return to.start + mine.minutes + there > other.from.start && other.from.start + theirs.minutes + back > to.start
}

/** Moves with all that have to be made with them. */
export function withNeeds(moves: readonly Pick<PlanMove, 'needs'>[], chosen: Iterable<number>): number[] {
  const found = new Set<number>()
  const add = (n: number): void => {
    if (found.has(n) || !moves[n]) return
    found.add(n)
    moves[n].needs.forEach(add)
  }
  for (const n of chosen) add(n)
  return [...found].sort((a, b) => a - b)
}

/** The plan once some of its moves are made. */
export function afterMoves(problem: PlanProblem, moves: readonly PlanMove[], taken: readonly number[]): Schedule {
  const made: Schedule = problem.jobs.map(({ now }) => asPlanned(now))
  for (const n of taken) made[moves[n]!.job] = moves[n]!.to
  return made
}

const SAID: Record<keyof Terms, [less: string, more: string]> = {
  late: ['less late', 'later against targets'],
  unplanned: ['done within these days', 'left undone'],
  travel: ['shorter ways', 'longer ways'],
  overtime: ['less overtime', 'more overtime'],
  moved: ['fewer visits moved', 'moved from its time'],
  handed: ['kept with who has it', 'given to somebody else'],
  knows: ['somebody who knows the asset', 'somebody who does not know the asset'],
}
export const TERM_NAMES: Record<keyof Terms, string> = {
  late: 'Lateness',
  unplanned: 'Left undone',
  travel: 'Travel',
  overtime: 'Overtime',
  moved: 'Visits moved',
  handed: 'Handed over',
  knows: 'Knows the asset',
}
/** The terms that decided a move, in words, what weighs most first; each with by how much. */
export const saysMove = ({ terms, cannotStand }: PlanMove): { words: string; by: number }[] =>
  TERMS.filter((term) => Math.abs(terms[term]) >= 0.5)
    .sort((a, b) => Math.abs(terms[b]) - Math.abs(terms[a]))
    .map((term) => ({
      words: term === 'unplanned' && cannotStand && terms[term] < 0 ? 'cannot be made as it stands' : SAID[term][terms[term] < 0 ? 0 : 1],
      by: Math.round(terms[term]),
    }))
