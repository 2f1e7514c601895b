import { index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { assets } from './assets'
import { id, instant } from './columns'
import { visits } from './dispatch'
import { orders } from './orders'

/** When an asset could not be used. */
export const downtimes = mysqlTable(
  'downtime',
  {
    id: id(),
    assetId: int('asset_id')
      .notNull()
      .references(() => assets.id),
    /** On which job it was written down. */
    orderId: int('order_id').references(() => orders.id),
    visitId: int('visit_id').references(() => visits.id),
    /** What whoever wrote it down calls it, before there is an id. */
    mark: varchar('mark', { length: 36 }).notNull(),
    fromAt: instant('from_at').notNull(),
    untilAt: instant('until_at'),
    reason: varchar('reason', { length: 200 }).notNull().default(''),
    saidBy: varchar('said_by', { length: 120 }).notNull(),
  },
  (table) => [uniqueIndex('downtime_mark').on(table.assetId, table.mark), index('downtime_asset').on(table.assetId, table.fromAt)],
)
