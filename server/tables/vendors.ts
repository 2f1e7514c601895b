import { date, int, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { basisPoints, id, instant, minor, tokenHash } from './columns'
import { trades } from './people'
import { visits } from './orders'

export const vendors = mysqlTable('vendor', {
  id: id(),
  name: varchar('name', { length: 120 }).notNull().unique(),
  email: varchar('email', { length: 190 }).notNull(),
  phone: varchar('phone', { length: 40 }),
  contactName: varchar('contact_name', { length: 120 }),
  service: varchar('service', { length: 120 }).notNull(),
  callOutMinor: minor('call_out_minor').notNull(),
  perHourMinor: minor('per_hour_minor').notNull(),
  markupBp: basisPoints('markup_bp').notNull(),
  contractUntil: date('contract_until', { mode: 'string' }),
  insuranceUntil: date('insurance_until', { mode: 'string' }),
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

/** The link by which a vendor works without an account. Only the hash of its token is kept. */
export const vendorPasses = mysqlTable(
  'vendor_pass',
  {
    id: id(),
    visitId: int('visit_id')
      .notNull()
      .references(() => visits.id),
    nonce: varchar('nonce', { length: 32 }).notNull(),
    tokenHash: tokenHash('token_hash').notNull(),
    createdAt: instant('created_at').notNull(),
    expiresAt: instant('expires_at').notNull(),
    revokedAt: instant('revoked_at'),
  },
  (table) => [uniqueIndex('vendor_pass_token').on(table.tokenHash)],
)
