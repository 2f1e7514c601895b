import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { PRIORITIES } from '#core/requests'
import type { PlanDuty, PlanJob, PlanProblem } from './model'
import { USUAL_WEIGHTS } from './weights'

/** What an invented problem is like; for checks and benches alone. */
export interface ProblemShape {
  jobs: number
  technicians: number
  days?: number
  seed: number
  trades?: number
  /** Shares from 0 to 1. */
  planned?: number
  windows?: number
  teams?: number
  blocks?: number
  /** The longest job in quarters of an hour; the others are anything from one on. */
  longest?: number
}

/**
 * An invented problem: a site of a few buildings with places by the way between them in a plane, shifts of eight hours from
 * seven or eight on, jobs of a quarter of an hour to two hours, unless said otherwise. The same seed makes the same.
 */
export function inventProblem({
  jobs: many,
  technicians,
  days = 1,
  seed,
  trades = 4,
  planned = 0.3,
  windows = 0.15,
  teams = 0.05,
  blocks = 0.2,
  longest = 8,
}: ProblemShape): PlanProblem {
  const random = xoroshiro128plus(seed)
  const below = (n: number) => uniformInt(random, 0, n - 1)
  const chance = (share: number) => below(1000) < share * 1000
  const places = Math.max(6, Math.round(many / 3))
  const points = Array.from({ length: places }, () => [below(100), below(100)] as const)
  const travel = points.map(([x, y]) => points.map(([u, v]) => Math.round(Math.hypot(x - u, y - v) / 6)))
  const crew = Array.from({ length: technicians }, (_, n) => ({
    normalPerHour: 4_000 + 100 * (n % 7),
    overtimePerHour: 6_000,
    trade: n % trades,
    home: below(Math.min(4, places)),
  }))
  const duties = Array.from({ length: days }, (_, day) =>
    crew.map(({ home }, technician): PlanDuty => {
      const from = day * 1_440 + 420 + 60 * below(2)
      const at = from + 60 + 15 * below(20)
      return {
        technician,
        from,
        until: from + 480,
        overtime: chance(0.5) ? 60 : 0,
        start: home,
        end: home,
        blocks: chance(blocks) ? [{ from: at, until: at + 45, place: chance(0.5) ? below(places) : null }] : [],
      }
    }),
  ).flat()
  const jobs = Array.from({ length: many }, (): PlanJob => {
    const trade = below(trades)
    const able = crew.flatMap((one, t) => (one.trade === trade || chance(0.1) ? [t] : []))
    const people = chance(teams) && able.length > 1 ? 2 : 1
    const day = below(days)
    const noon = day * 1_440 + 480 + 15 * below(30)
    const priority = [PRIORITIES[0], PRIORITIES[1], PRIORITIES[1], PRIORITIES[2], PRIORITIES[2], PRIORITIES[2], PRIORITIES[2], PRIORITIES[3]][below(8)]!
    const target = chance(0.85) ? noon + below(days * 1_440) - 600 : null
    return {
      place: chance(0.95) ? below(places) : null,
      minutes: 15 * (1 + below(longest)),
      people,
      priority,
      able,
      earliest: chance(0.2) ? noon - 60 : 0,
      window: chance(windows) ? { from: noon, until: noon + 60 + 15 * below(8) } : null,
      target,
      always: priority === 'emergency',
      lateAtOrigin: target !== null && target < 0 ? -target : 0,
      known: able.filter(() => chance(0.15)),
      now: chance(planned) && able.length >= people ? { start: noon, technicians: able.slice(0, people), promised: chance(0.4) } : null,
    }
  })
  return {
    jobs,
    technicians: crew.map(({ normalPerHour, overtimePerHour }) => ({ normalPerHour, overtimePerHour })),
    duties,
    travel,
    working: Array.from({ length: days + 2 }, (_, day) => ({ from: day * 1_440 + 480, until: day * 1_440 + 1_020 })),
    afterwards: days * 1_440 + 480,
    notBefore: 0,
    weights: USUAL_WEIGHTS,
  }
}
