import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { date, decimal, index, int, mysqlTable, primaryKey, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { basisPoints, id, instant, inUse, minor } from './columns'
import { visits } from './dispatch'
import { attachments } from './kit'
import { orders } from './orders'
import { trades } from './people'
import { sites } from './places'

export const vendorBills = mysqlTable(
  'vendor_bill',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    visitId: int('visit_id')
      .notNull()
      .references(() => visits.id),
    vendorId: int('vendor_id')
      .notNull()
      .references(() => vendors.id),
    number: varchar('number', { length: 40 }).notNull(),
    taxBp: basisPoints('tax_bp').notNull(),
    enteredAt: instant('entered_at').notNull(),
    /** The bill as they sent it, where they did. */
    attachmentId: int('attachment_id').references((): AnyMySqlColumn => attachments.id),
  },
  (table) => [
    uniqueIndex('vendor_bill_number').on(table.vendorId, table.number),
    uniqueIndex('vendor_bill_visit').on(table.visitId),
    index('vendor_bill_order').on(table.orderId),
  ],
)

export const vendorBillLines = mysqlTable(
  'vendor_bill_line',
  {
    id: id(),
    billId: int('bill_id')
      .notNull()
      .references(() => vendorBills.id),
    description: varchar('description', { length: 200 }).notNull(),
    quantity: decimal('quantity', { precision: 12, scale: 3 }).notNull(),
    unitPriceMinor: minor('unit_price_minor').notNull(),
    amountMinor: minor('amount_minor').notNull(),
  },
  (table) => [index('vendor_bill_line_bill').on(table.billId)],
)

/** What a vendor brought along and built in. */
export const vendorParts = mysqlTable(
  'vendor_part',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    visitId: int('visit_id')
      .notNull()
      .references(() => visits.id),
    name: varchar('name', { length: 120 }).notNull(),
    quantity: decimal('quantity', { precision: 12, scale: 3 }).notNull(),
    unit: varchar('unit', { length: 16 }).notNull(),
    at: instant('at').notNull(),
  },
  (table) => [index('vendor_part_order').on(table.orderId), index('vendor_part_visit').on(table.visitId)],
)

export const vendors = mysqlTable('vendor', {
  id: id(),
  name: varchar('name', { length: 120 }).notNull().unique(),
  email: varchar('email', { length: 190 }).notNull(),
  phone: varchar('phone', { length: 40 }),
  contactName: varchar('contact_name', { length: 120 }),
  service: varchar('service', { length: 120 }),
  /** What they charge; empty while nothing is agreed. */
  callOutMinor: minor('call_out_minor'),
  perHourMinor: minor('per_hour_minor'),
  markupBp: basisPoints('markup_bp'),
  minimumMinutes: int('minimum_minutes'),
  stepMinutes: int('step_minutes'),
  contractNumber: varchar('contract_number', { length: 60 }),
  contractUntil: date('contract_until', { mode: 'string' }),
  insuranceUntil: date('insurance_until', { mode: 'string' }),
  licenceUntil: date('licence_until', { mode: 'string' }),
  bankName: varchar('bank_name', { length: 80 }),
  /** ISO 13616, without blanks. */
  iban: varchar('iban', { length: 34 }),
  note: text('note'),
  ...inUse(),
})

export const vendorTrades = mysqlTable(
  'vendor_trade',
  {
    vendorId: int('vendor_id')
      .notNull()
      .references(() => vendors.id),
    tradeId: int('trade_id')
      .notNull()
      .references(() => trades.id),
  },
  (table) => [primaryKey({ columns: [table.vendorId, table.tradeId] })],
)

/** Where a vendor comes: every site where nothing is said. */
export const vendorSites = mysqlTable(
  'vendor_site',
  {
    vendorId: int('vendor_id')
      .notNull()
      .references(() => vendors.id),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
  },
  (table) => [primaryKey({ columns: [table.vendorId, table.siteId] })],
)

/** Whom to call there. */
export const vendorContacts = mysqlTable(
  'vendor_contact',
  {
    id: id(),
    vendorId: int('vendor_id')
      .notNull()
      .references(() => vendors.id),
    name: varchar('name', { length: 120 }).notNull(),
    role: varchar('role', { length: 80 }),
    email: varchar('email', { length: 190 }),
    phone: varchar('phone', { length: 40 }),
  },
  (table) => [uniqueIndex('vendor_contact_once').on(table.vendorId, table.name)],
)
