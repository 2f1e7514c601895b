import type { Priority } from '#core/requests'

/** What a plan pays for, in minutes that weigh as much as a minute on the way does. Each is a setting of the site. */
export interface PlanWeights {
  /** For each minute past the target, on the clock of the target. */
  late: Record<Priority, number>
  /** Once for a job that nobody does within the days planned; its lateness is counted beside it. */
  unplanned: Record<Priority, number>
  /** For each minute on the way. */
  travel: number
  /** For each minute past the end of a shift. */
  overtime: number
  /** Once for a visit somebody was promised that begins at another time, and for each minute beyond a quarter of an hour. */
  movedPromise: number
  movedPromiseMinute: number
  /** Once for a visit somebody was promised that is given to another person. */
  handedPromise: number
  /** The same for a visit that is only planned. */
  moved: number
  handed: number
  /** Taken off for a visit by somebody who knows the asset. */
  knows: number
  /** How many times as much moving and handing over weighs when a plan is repaired after a surprise. */
  repair: number
}

/** Our own choice, without a source. */
export const USUAL_WEIGHTS: PlanWeights = {
  late: { emergency: 16, urgent: 4, routine: 1, deferred: 0.25 },
  unplanned: { emergency: 5_000, urgent: 1_500, routine: 600, deferred: 150 },
  travel: 1,
  overtime: 2,
  movedPromise: 120,
  movedPromiseMinute: 1,
  handedPromise: 60,
  moved: 15,
  handed: 10,
  knows: 10,
  repair: 4,
}
export const MOST_WEIGHT = 100_000

/** The weights while a plan is repaired: the same, but everything that is moved counts more. */
export const repairing = (weights: PlanWeights): PlanWeights => ({
  ...weights,
  movedPromise: weights.movedPromise * weights.repair,
  movedPromiseMinute: weights.movedPromiseMinute * weights.repair,
  handedPromise: weights.handedPromise * weights.repair,
  moved: weights.moved * weights.repair,
  handed: weights.handed * weights.repair,
})

/** Work without a priority weighs as Routine. */
export const weightOf = (by: Record<Priority, number>, priority: Priority | null): number => by[priority ?? 'routine']
