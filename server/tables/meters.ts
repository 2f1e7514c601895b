import { boolean, decimal, index, int, mysqlTable, text, varchar } from 'drizzle-orm/mysql-core'
import { assets } from './assets'
import { id, instant } from './columns'
import { visits } from './dispatch'
import { orders } from './orders'

/** A counter on an asset. */
export const meters = mysqlTable(
  'meter',
  {
    id: id(),
    assetId: int('asset_id')
      .notNull()
      .references(() => assets.id),
    name: varchar('name', { length: 60 }).notNull(),
    unit: varchar('unit', { length: 16 }).notNull(),
    /** At what number it is at nought again; null where it never is. */
    rollsAt: decimal('rolls_at', { precision: 14, scale: 3 }),
    retiredAt: instant('retired_at'),
  },
  (table) => [index('meter_asset').on(table.assetId)],
)

/** What a meter showed. Never changed: what was read wrong is struck out. */
export const readings = mysqlTable(
  'reading',
  {
    id: id(),
    meterId: int('meter_id')
      .notNull()
      .references(() => meters.id),
    value: decimal('value', { precision: 14, scale: 3 }).notNull(),
    at: instant('at').notNull(),
    /** Another counter was put in before it: that one began at nought. */
    anew: boolean('anew').notNull().default(false),
    readBy: varchar('read_by', { length: 120 }).notNull(),
    orderId: int('order_id').references(() => orders.id),
    visitId: int('visit_id').references(() => visits.id),
    struckAt: instant('struck_at'),
    struckBy: varchar('struck_by', { length: 120 }),
    struckReason: text('struck_reason'),
  },
  (table) => [index('reading_meter').on(table.meterId, table.at), index('reading_visit').on(table.visitId)],
)
