import { decimal, index, int, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { MOVEMENT_KINDS } from '#core/stock'
import { id, instant, inUse, minor } from './columns'
import { visits } from './dispatch'
import { orders } from './orders'
import { accounts } from './people'
import { places, sites } from './places'

export const parts = mysqlTable('part', {
  id: id(),
  code: varchar('code', { length: 32 }).notNull().unique(),
  name: varchar('name', { length: 120 }).notNull(),
  unit: varchar('unit', { length: 16 }).notNull(),
  searchText: varchar('search_text', { length: 400 }).notNull(),
  ...inUse(),
})

export const stores = mysqlTable('store', {
  id: id(),
  siteId: int('site_id')
    .notNull()
    .references(() => sites.id),
  placeId: int('place_id').references(() => places.id),
  name: varchar('name', { length: 80 }).notNull(),
  ...inUse(),
})

export const stockLevels = mysqlTable(
  'stock_level',
  {
    storeId: int('store_id')
      .notNull()
      .references(() => stores.id),
    partId: int('part_id')
      .notNull()
      .references(() => parts.id),
    quantity: decimal('quantity', { precision: 12, scale: 3 }).notNull(),
    averageCostMinor: minor('average_cost_minor').notNull(),
  },
  (table) => [primaryKey({ columns: [table.storeId, table.partId] })],
)

/** Every movement is a record; none is ever changed. Issues are negative. */
export const stockMovements = mysqlTable(
  'stock_movement',
  {
    id: id(),
    storeId: int('store_id')
      .notNull()
      .references(() => stores.id),
    partId: int('part_id')
      .notNull()
      .references(() => parts.id),
    kind: varchar('kind', { length: 12, enum: MOVEMENT_KINDS }).notNull(),
    quantity: decimal('quantity', { precision: 12, scale: 3 }).notNull(),
    unitCostMinor: minor('unit_cost_minor').notNull(),
    orderId: int('order_id').references(() => orders.id),
    visitId: int('visit_id').references(() => visits.id),
    at: instant('at').notNull(),
    by: int('by').references(() => accounts.id),
    reason: varchar('reason', { length: 200 }),
  },
  (table) => [index('stock_movement_order').on(table.orderId), index('stock_movement_part').on(table.partId, table.at)],
)

/** Parts kept for an order; they count while it is not over. */
export const reservations = mysqlTable(
  'reservation',
  {
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    partId: int('part_id')
      .notNull()
      .references(() => parts.id),
    storeId: int('store_id')
      .notNull()
      .references(() => stores.id),
    quantity: decimal('quantity', { precision: 12, scale: 3 }).notNull(),
    at: instant('at').notNull(),
    by: int('by').references(() => accounts.id),
  },
  (table) => [primaryKey({ columns: [table.orderId, table.partId, table.storeId] }), index('reservation_level').on(table.storeId, table.partId)],
)

export const equipment = mysqlTable('equipment', {
  id: id(),
  siteId: int('site_id')
    .notNull()
    .references(() => sites.id),
  tag: varchar('tag', { length: 32 }).notNull().unique(),
  name: varchar('name', { length: 120 }).notNull(),
  ...inUse(),
})

export const equipmentLoans = mysqlTable(
  'equipment_loan',
  {
    id: id(),
    equipmentId: int('equipment_id')
      .notNull()
      .references(() => equipment.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    fromAt: instant('from_at').notNull(),
    untilAt: instant('until_at'),
  },
  (table) => [uniqueIndex('equipment_loan_from').on(table.equipmentId, table.fromAt)],
)
