import Joi from 'joi'
import type { Rearranged } from '#contract/board'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { BOARD_DAYS } from '#core/board'
import type { BoardDays } from '#core/board'
import type { PlanFigures } from '#core/dayplans'
import type { Priority } from '#core/requests'

export * from './ruleSections'

/** Something that could be otherwise; technicians by their ids. */
export type AskedWhatIf =
  | { kind: 'more'; technicianId: number }
  | { kind: 'off'; technicianId: number }
  | { kind: 'overtime'; minutes: number }
  | { kind: 'start'; technicianId: number; minutes: number }

/** What a plan is asked for. */
export interface DayPlanAsk {
  siteId: number
  /** The first day; today when it is left out. */
  first?: string
  days?: BoardDays
  /** Only these; everybody of the site when it is left out. What the others have stays as it is. */
  technicianIds?: number[]
  /** Only these orders are planned or moved; every one when it is left out. */
  orderIds?: number[]
  /** Up to so many minutes may be worked beyond a shift. */
  overtimeMinutes?: number
  /** For how long it is looked for. */
  seconds?: number
  /** With as few changes as can be, after something that was not foreseen. */
  repair?: boolean
  whatIf?: AskedWhatIf[]
  /** The same seed and rounds make the same plan. */
  seed?: number
}

export const DAY_PLAN_STATES = ['waiting', 'ready', 'failed'] as const
export type DayPlanState = (typeof DAY_PLAN_STATES)[number]

export interface PlannedFor {
  start: Instant
  end: Instant
  people: { id: number; name: string }[]
}
export interface DayPlanMove {
  /** What names it when it is taken. */
  at: number
  orderId: number
  number: string
  summary: string
  placeCode: string | null
  priority: Priority | null
  /** Somebody was promised the time it has now. */
  promised: boolean
  from: PlannedFor | null
  to: PlannedFor | null
  /** What decided, in words, with the weighted minutes it changes. */
  because: { words: string; by: number }[]
  /** Moves that are made with it. */
  needs: number[]
  taken: boolean
}
/** Work that is not done within these days. */
export interface DayPlanLeft {
  orderId: number
  number: string
  summary: string
  priority: Priority | null
  why: string
}
export interface DayPlan {
  id: number
  version: number
  state: DayPlanState
  first: string
  last: string
  createdAt: Instant
  createdBy: string
  ask: DayPlanAsk
  /** Null until it is ready. */
  result: {
    now: PlanFigures
    then: PlanFigures
    /** What inserting alone would cost, in weighted minutes. */
    inserted: number
    rounds: number
    seed: number
    people: number
    whatIf: { words: string; figures: PlanFigures }[]
    moves: DayPlanMove[]
    left: DayPlanLeft[]
    /** Left out because something stands between them and dispatch. */
    notReady: DayPlanLeft[]
  } | null
  /** What no plan can cost less than; `computing` until it is there, `none` where time did not suffice. */
  bound: { state: 'computing' } | { state: 'none' } | { state: 'known'; value: number; converged: boolean }
}

export const MOST_SECONDS = 60
export const MOST_OVERTIME = 240
const minutes = (least: number, most: number) => Joi.number().integer().min(least).max(most)
const whatIf = Joi.alternatives(
  Joi.object({ kind: field.oneOf(['more', 'off']).required(), technicianId: field.id().required() }),
  Joi.object({ kind: field.oneOf(['overtime']).required(), minutes: minutes(0, MOST_OVERTIME).required() }),
  Joi.object({ kind: field.oneOf(['start']).required(), technicianId: field.id().required(), minutes: minutes(-MOST_OVERTIME, MOST_OVERTIME).required() }),
)
export const computeDayPlan = endpoint<DayPlanAsk, { id: number }>({
  method: 'POST',
  path: '/api/board/:siteId/plans',
  says: 'Have a plan computed for a day or several; it is read by its id while it is looked for, and changes nothing by itself.',
  may: 'orders.dispatch',
  input: Joi.object<DayPlanAsk, true>({
    siteId: field.id().required(),
    first: field.day(),
    days: Joi.number().valid(...BOARD_DAYS),
    technicianIds: Joi.array().items(field.id()).unique().min(1).max(500),
    orderIds: Joi.array().items(field.id()).unique().min(1).max(2_000),
    overtimeMinutes: minutes(0, MOST_OVERTIME),
    seconds: minutes(1, MOST_SECONDS),
    repair: Joi.boolean(),
    whatIf: Joi.array().items(whatIf).max(4),
    seed: Joi.number().integer().min(1).max(1_000_000),
  }),
})

/** A plan computed lately. */
export interface DayPlanLine {
  id: number
  first: string
  last: string
  createdAt: Instant
  createdBy: string
  state: DayPlan['state']
  repair: boolean
  /** How many of its moves were made. */
  taken: number
}
export const listDayPlans = endpoint<{ siteId: number }, { rows: DayPlanLine[] }>({
  method: 'GET',
  path: '/api/board/:siteId/plans',
  says: 'Plans computed within a day, the newest first.',
  may: 'orders.dispatch',
  input: Joi.object<{ siteId: number }, true>({ siteId: field.id().required() }),
})

interface Named {
  siteId: number
  planId: number
}
const named = { siteId: field.id().required(), planId: field.id().required() }
export const readDayPlan = endpoint<Named, DayPlan>({
  method: 'GET',
  path: '/api/board/:siteId/plans/:planId',
  says: 'A computed plan held against the one that stands: figures, every move with what decided it, what is left, and what no plan can come below.',
  may: 'orders.dispatch',
  input: Joi.object<Named, true>(named),
})

interface Taking extends Named {
  version: number
  /** Those of its moves that are made, and what has to be made with them. */
  moves: number[]
}
export const takeDayPlan = endpoint<Taking, Rearranged & { taken: number[] }>({
  method: 'POST',
  path: '/api/board/:siteId/plans/:planId/take',
  says: 'Make some or all moves of a computed plan, all of them or nothing; everybody concerned is told once.',
  may: 'orders.dispatch',
  input: Joi.object<Taking, true>({
    ...named,
    version: field.version().required(),
    moves: Joi.array().items(Joi.number().integer().min(0).max(10_000)).unique().min(1).max(2_000).required(),
  }),
})
