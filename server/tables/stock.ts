import { date, decimal, index, int, mysqlTable, primaryKey, smallint, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { MOVEMENT_KINDS, PURCHASE_STATES } from '#core/stock'
import { id, instant, inUse, minor, version } from './columns'
import { visits } from './dispatch'
import { storedFiles } from './kit'
import { orders } from './orders'
import { accounts } from './people'
import { places, sites } from './places'
import { vendors } from './vendors'

export const parts = mysqlTable('part', {
  id: id(),
  code: varchar('code', { length: 32 }).notNull().unique(),
  name: varchar('name', { length: 120 }).notNull(),
  unit: varchar('unit', { length: 16 }).notNull(),
  /** Whom it is usually bought from, and how many days that takes. */
  vendorId: int('vendor_id').references(() => vendors.id),
  leadDays: smallint('lead_days'),
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
  /** Whose van it is, where it is one. */
  carriedBy: int('carried_by').references(() => accounts.id),
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

/** Parts that are bought: asked for, then ordered at a vendor, received in parts or whole, and billed. */
export const purchases = mysqlTable(
  'purchase',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    number: varchar('number', { length: 16 }).notNull().unique(),
    state: varchar('state', { length: 12, enum: PURCHASE_STATES }).notNull(),
    /** Needed once it is ordered. */
    vendorId: int('vendor_id').references(() => vendors.id),
    /** Where it is delivered to. */
    storeId: int('store_id')
      .notNull()
      .references(() => stores.id),
    note: varchar('note', { length: 1000 }),
    expectedOn: date('expected_on', { mode: 'string' }),
    askedAt: instant('asked_at').notNull(),
    askedBy: int('asked_by')
      .notNull()
      .references(() => accounts.id),
    orderedAt: instant('ordered_at'),
    orderedBy: int('ordered_by').references(() => accounts.id),
    /** The purchase order as the vendor was sent it. */
    fileId: int('file_id').references(() => storedFiles.id),
    billNumber: varchar('bill_number', { length: 40 }),
    billedOn: date('billed_on', { mode: 'string' }),
    billMinor: minor('bill_minor'),
    version: version(),
  },
  (table) => [index('purchase_site').on(table.siteId, table.state, table.id), uniqueIndex('purchase_bill').on(table.vendorId, table.billNumber)],
)

export const purchaseLines = mysqlTable(
  'purchase_line',
  {
    id: id(),
    purchaseId: int('purchase_id')
      .notNull()
      .references(() => purchases.id),
    partId: int('part_id')
      .notNull()
      .references(() => parts.id),
    quantity: decimal('quantity', { precision: 12, scale: 3 }).notNull(),
    /** Of one; null while nobody knows. */
    priceMinor: minor('price_minor'),
    received: decimal('received', { precision: 12, scale: 3 }).notNull(),
    /** The order it is bought for. */
    orderId: int('order_id').references(() => orders.id),
  },
  (table) => [index('purchase_line_purchase').on(table.purchaseId), index('purchase_line_part').on(table.partId)],
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
    /** What the order is charged for one, where that is not what it counted for in stock. */
    chargeMinor: minor('charge_minor'),
    /** The line of a purchase it came by. */
    purchaseLineId: int('purchase_line_id').references(() => purchaseLines.id),
    orderId: int('order_id').references(() => orders.id),
    visitId: int('visit_id').references(() => visits.id),
    at: instant('at').notNull(),
    by: int('by').references(() => accounts.id),
    reason: varchar('reason', { length: 200 }),
  },
  (table) => [
    index('stock_movement_demand').on(table.partId, table.kind, table.at, table.storeId, table.quantity),
    index('stock_movement_order').on(table.orderId),
    index('stock_movement_part').on(table.partId, table.at),
  ],
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
  /** Where it is kept. */
  placeId: int('place_id').references(() => places.id),
  /** The last day its inspection is valid. */
  inspectedUntil: date('inspected_until', { mode: 'string' }),
  /** What an order is charged for each day it has it; null where it costs nothing. */
  perDayMinor: minor('per_day_minor'),
  ...inUse(),
})
