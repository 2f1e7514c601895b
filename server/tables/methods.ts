import { boolean, decimal, index, int, json, mysqlTable, smallint, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { LEAVES, STEP_KINDS, STEP_STATES } from '#core/methods'
import type { HazardLine, LabourLine, MethodContent, PartLine, PlanLines, ToolLine } from '#core/methods'
import { ORDER_KINDS } from '#core/orders'
import { id, instant, inUse, version } from './columns'
import { attachments } from './kit'
import { orders } from './orders'
import { accounts, trades } from './people'
import { categories } from './requests'

/** A standard way to do a job; they serve every site. */
export const methods = mysqlTable('method', {
  id: id(),
  code: varchar('code', { length: 16 }).notNull().unique(),
  name: varchar('name', { length: 120 }).notNull(),
  kind: varchar('kind', { length: 12, enum: ORDER_KINDS }),
  tradeId: int('trade_id').references(() => trades.id),
  categoryId: int('category_id').references(() => categories.id),
  classCode: varchar('class_code', { length: 8 }),
  leaves: varchar('leaves', { length: 16, enum: LEAVES }),
  note: varchar('note', { length: 4000 }),
  /** The newest of its versions; 0 while nothing was written. */
  edition: int('edition').notNull().default(0),
  searchText: varchar('search_text', { length: 400 }).notNull(),
  ...inUse(),
})

/** What a method said at a time; none is ever changed. */
export const methodEditions = mysqlTable(
  'method_edition',
  {
    id: id(),
    methodId: int('method_id')
      .notNull()
      .references(() => methods.id),
    edition: int('edition').notNull(),
    content: json('content').$type<MethodContent>().notNull(),
    note: varchar('note', { length: 200 }),
    at: instant('at').notNull(),
    by: int('by').references(() => accounts.id),
  },
  (table) => [uniqueIndex('method_edition_once').on(table.methodId, table.edition)],
)

/** A method an order was given, in the version of that moment. */
export const orderMethods = mysqlTable(
  'order_method',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    methodId: int('method_id')
      .notNull()
      .references(() => methods.id),
    edition: int('edition').notNull(),
    at: instant('at').notNull(),
    by: int('by').references(() => accounts.id),
  },
  (table) => [uniqueIndex('order_method_once').on(table.orderId, table.methodId), index('order_method_method').on(table.methodId)],
)

/** What an order needs besides its steps. */
export const orderPlans = mysqlTable('order_plan', {
  orderId: int('order_id')
    .primaryKey()
    .references(() => orders.id),
  labour: json('labour').$type<LabourLine[]>().notNull(),
  parts: json('parts').$type<PartLine[]>().notNull(),
  tools: json('tools').$type<ToolLine[]>().notNull(),
  hazards: json('hazards').$type<HazardLine[]>().notNull(),
  /** What was planned when it was agreed to. */
  agreed: json('agreed').$type<Pick<PlanLines, 'labour' | 'parts'> & Partial<Pick<PlanLines, 'tools'>>>(),
  version: version(),
})

export const orderSteps = mysqlTable(
  'order_step',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    appliedId: int('applied_id').references(() => orderMethods.id),
    position: smallint('position').notNull(),
    text: varchar('text', { length: 300 }).notNull(),
    kind: varchar('kind', { length: 8, enum: STEP_KINDS }).notNull(),
    unit: varchar('unit', { length: 16 }),
    least: decimal('least', { precision: 14, scale: 4, mode: 'number' }),
    most: decimal('most', { precision: 14, scale: 4, mode: 'number' }),
    choices: json('choices').$type<string[]>().notNull(),
    first: boolean('first').notNull(),
    /** The step it waits for. */
    afterId: int('after_id'),
    assigneeId: int('assignee_id').references(() => accounts.id),
    state: varchar('state', { length: 4, enum: STEP_STATES }).notNull(),
    value: varchar('value', { length: 60 }),
    outside: boolean('outside').notNull(),
    note: varchar('note', { length: 500 }),
    photoId: int('photo_id').references(() => attachments.id),
    doneBy: int('done_by').references(() => accounts.id),
    /** Whoever did it without an account: a vendor. */
    doneByName: varchar('done_by_name', { length: 120 }),
    doneAt: instant('done_at'),
    version: version(),
  },
  (table) => [index('order_step_order').on(table.orderId, table.position), index('order_step_assignee').on(table.assigneeId, table.state)],
)
