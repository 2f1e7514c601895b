import { date, index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { id, instant } from './columns'
import { orders } from './orders'
import { trades } from './people'
import { assets } from './assets'
import { places, sites } from './places'

export const preventivePlans = mysqlTable('preventive_plan', {
  id: id(),
  siteId: int('site_id')
    .notNull()
    .references(() => sites.id),
  name: varchar('name', { length: 120 }).notNull(),
  assetId: int('asset_id').references(() => assets.id),
  placeId: int('place_id').references(() => places.id),
  tradeId: int('trade_id').references(() => trades.id),
  /** RFC 5545 RRULE. */
  rule: varchar('rule', { length: 200 }).notNull(),
  leadDays: int('lead_days').notNull(),
  startsOn: date('starts_on', { mode: 'string' }).notNull(),
})

export const dues = mysqlTable(
  'due',
  {
    id: id(),
    planId: int('plan_id')
      .notNull()
      .references(() => preventivePlans.id),
    dueOn: date('due_on', { mode: 'string' }).notNull(),
    orderId: int('order_id').references(() => orders.id),
    doneAt: instant('done_at'),
  },
  (table) => [uniqueIndex('due_once').on(table.planId, table.dueOn), index('due_on').on(table.dueOn)],
)
