import { PAYER_KINDS } from '#core/ledger'
import { boolean, date, decimal, index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { basisPoints, id, instant, inUse, minor } from './columns'
import { orders } from './orders'
import { accounts } from './people'
import { sites } from './places'
import { vendors } from './vendors'

export const payers = mysqlTable('payer', {
  id: id(),
  code: varchar('code', { length: 16 }).notNull().unique(),
  name: varchar('name', { length: 120 }).notNull(),
  kind: varchar('kind', { length: 12, enum: PAYER_KINDS }).notNull(),
  taxBp: basisPoints('tax_bp').notNull(),
  email: varchar('email', { length: 190 }),
  budgetMinor: minor('budget_minor'),
  /** Who consents before more than this is spent at their cost; empty for payers who leave it to us. */
  consentAboveMinor: minor('consent_above_minor'),
  consentAccountId: int('consent_account_id').references((): AnyMySqlColumn => accounts.id),
  endsOn: date('ends_on', { mode: 'string' }),
  ...inUse(),
})

/** What a cost kind is marked up by when no vendor's terms say otherwise. */
export const markups = mysqlTable('markup', {
  kind: varchar('kind', { length: 12, enum: ['labour', 'parts', 'equipment', 'vendor'] }).primaryKey(),
  markupBp: basisPoints('markup_bp').notNull(),
})

export const periods = mysqlTable(
  'period',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    /** "2026-11" */
    month: varchar('month', { length: 7 }).notNull(),
    closedAt: instant('closed_at'),
    closedBy: int('closed_by').references(() => accounts.id),
  },
  (table) => [uniqueIndex('period_month').on(table.siteId, table.month)],
)

/**
 * Charges of an order, made once and never edited. `round` counts postings of the order: a second
 * one needs the first reversed. The unique index holds "never twice" even if code is wrong.
 */
export const postings = mysqlTable(
  'posting',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    kind: varchar('kind', { length: 12, enum: ['posting', 'reversal'] }).notNull(),
    round: int('round').notNull(),
    reversesId: int('reverses_id').references((): AnyMySqlColumn => postings.id),
    month: varchar('month', { length: 7 }).notNull(),
    at: instant('at').notNull(),
    by: int('by').references(() => accounts.id),
    reason: varchar('reason', { length: 500 }),
  },
  (table) => [
    uniqueIndex('posting_once').on(table.orderId, table.round, table.kind),
    uniqueIndex('posting_reversed_once').on(table.reversesId),
    index('posting_month').on(table.month),
  ],
)

export const charges = mysqlTable(
  'charge',
  {
    id: id(),
    postingId: int('posting_id')
      .notNull()
      .references(() => postings.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    payerId: int('payer_id')
      .notNull()
      .references(() => payers.id),
    month: varchar('month', { length: 7 }).notNull(),
    ownCost: boolean('own_cost').notNull(),
    shareBp: basisPoints('share_bp').notNull(),
    netMinor: minor('net_minor').notNull(),
    taxBp: basisPoints('tax_bp').notNull(),
    taxMinor: minor('tax_minor').notNull(),
    grossMinor: minor('gross_minor').notNull(),
  },
  (table) => [uniqueIndex('charge_once').on(table.postingId, table.payerId), index('charge_statement').on(table.payerId, table.month, table.netMinor)],
)

/** The lines of a charge, each traceable to the stint, movement or bill line it comes from. */
export const chargeLines = mysqlTable(
  'charge_line',
  {
    id: id(),
    chargeId: int('charge_id')
      .notNull()
      .references(() => charges.id),
    kind: varchar('kind', { length: 12, enum: ['labour', 'parts', 'equipment', 'vendor'] }).notNull(),
    sourceId: int('source_id').notNull(),
    description: varchar('description', { length: 240 }).notNull(),
    quantity: decimal('quantity', { precision: 12, scale: 3 }).notNull(),
    unit: varchar('unit', { length: 16 }).notNull(),
    unitCostMinor: minor('unit_cost_minor').notNull(),
    costMinor: minor('cost_minor').notNull(),
    markupBp: basisPoints('markup_bp').notNull(),
    netMinor: minor('net_minor').notNull(),
  },
  (table) => [index('charge_line_charge').on(table.chargeId)],
)

export const journalEntries = mysqlTable(
  'journal_entry',
  {
    id: id(),
    postingId: int('posting_id')
      .notNull()
      .references(() => postings.id),
    account: varchar('account', { length: 60 }).notNull(),
    debitMinor: minor('debit_minor').notNull(),
    creditMinor: minor('credit_minor').notNull(),
  },
  (table) => [index('journal_entry_posting').on(table.postingId), index('journal_entry_account').on(table.account)],
)

export const payables = mysqlTable(
  'payable',
  {
    id: id(),
    postingId: int('posting_id')
      .notNull()
      .references(() => postings.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    vendorId: int('vendor_id')
      .notNull()
      .references(() => vendors.id),
    netMinor: minor('net_minor').notNull(),
    taxMinor: minor('tax_minor').notNull(),
    paymentId: int('payment_id').references(() => payments.id),
  },
  (table) => [uniqueIndex('payable_once').on(table.postingId, table.vendorId), index('payable_vendor').on(table.vendorId)],
)

export const payments = mysqlTable('payment', {
  id: id(),
  vendorId: int('vendor_id')
    .notNull()
    .references(() => vendors.id),
  amountMinor: minor('amount_minor').notNull(),
  at: instant('at').notNull(),
})
