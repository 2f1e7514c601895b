import type { PlanDuty, PlanProblem } from './model'

/** Something that could be otherwise; technicians by where they stand in the problem. */
export type WhatIf =
  /** One more person who is and works like somebody. */
  | { kind: 'more'; technician: number }
  | { kind: 'off'; technician: number }
  /** Everybody may work so many minutes beyond their shift. */
  | { kind: 'overtime'; minutes: number }
  /** Shifts begin and end so many minutes later; earlier below nought. */
  | { kind: 'start'; technician: number; minutes: number }

/** The same problem with that otherwise; nothing of the first is changed. */
export function varied(problem: PlanProblem, what: WhatIf): PlanProblem {
  const { duties, technicians, jobs } = problem
  const others = (change: (duty: PlanDuty) => PlanDuty[]) => duties.flatMap(change)
  switch (what.kind) {
    case 'overtime':
      return { ...problem, duties: duties.map((duty) => ({ ...duty, overtime: what.minutes })) }
    case 'off':
      return { ...problem, duties: others((duty) => (duty.technician === what.technician ? [] : [duty])) }
    case 'start':
      return {
        ...problem,
        duties: others((duty) => {
          if (duty.technician !== what.technician) return [duty]
          const from = Math.max(duty.from + what.minutes, problem.notBefore)
          const until = duty.until + what.minutes
          // What stays as it is stays where it is, also outside of the shift then.
          return from < until ? [{ ...duty, from, until }] : []
        }),
      }
    case 'more': {
      const one = technicians.length
      return {
        ...problem,
        technicians: [...technicians, technicians[what.technician]!],
        duties: [...duties, ...duties.filter(({ technician }) => technician === what.technician).map((duty) => ({ ...duty, technician: one, blocks: [] }))],
        jobs: jobs.map((job) => (job.able.includes(what.technician) ? { ...job, able: [...job.able, one] } : job)),
      }
    }
  }
}
