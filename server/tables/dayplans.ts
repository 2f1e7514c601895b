import { index, int, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { DAY_PLAN_STATES } from '#contract/dayplans'
import type { DayPlanAsk } from '#contract/dayplans'
import type { Bound, MadePlan, PlanProblem } from '#core/dayplans'
import { id, instant, version } from './columns'
import { accounts } from './people'
import { sites } from './places'

/** A job of a plan as it was found: the order, and the visits that are planned of it. */
export interface PlannedOrder {
  orderId: number
  visits: { id: number; version: number; technicianId: number }[]
}
/** What a plan was computed from. */
export interface PlanGiven {
  problem: PlanProblem
  /** The instant its minutes count from. */
  origin: string
  orders: PlannedOrder[]
  technicianIds: number[]
  notReady: { orderId: number; why: string }[]
}

/** A plan somebody asked for, computed by whichever server comes first; kept for some days, since it grows old. */
export const dayPlans = mysqlTable(
  'day_plan',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    createdBy: int('created_by')
      .notNull()
      .references(() => accounts.id),
    createdByName: varchar('created_by_name', { length: 120 }).notNull(),
    createdAt: instant('created_at').notNull(),
    first: varchar('first', { length: 10 }).notNull(),
    last: varchar('last', { length: 10 }).notNull(),
    ask: json('ask').$type<DayPlanAsk>().notNull(),
    given: json('given').$type<PlanGiven>().notNull(),
    state: varchar('state', { length: 12, enum: DAY_PLAN_STATES }).notNull(),
    /** Who has taken it up computes it until then, or somebody else does. */
    tryAt: instant('try_at').notNull(),
    attempts: int('attempts').notNull().default(0),
    made: json('made').$type<Omit<MadePlan, 'columns'>>(),
    bound: json('bound').$type<Bound>(),
    /** Until when the bound is waited for. */
    boundBy: instant('bound_by'),
    taken: json('taken').$type<number[]>().notNull(),
    version: version(),
  },
  (table) => [index('day_plan_waiting').on(table.state, table.tryAt), index('day_plan_created').on(table.createdAt)],
)
