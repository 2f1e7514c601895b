import { date, index, int, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { QUOTE_STATES } from '#core/quotes'
import { basisPoints, id, instant, minor, tokenHash, version } from './columns'
import { orders } from './orders'
import { accounts } from './people'
import { sites } from './places'
import { vendors } from './vendors'

/** A price a vendor was asked for, answered by a link of their own. */
export const quotes = mysqlTable(
  'quote',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    vendorId: int('vendor_id')
      .notNull()
      .references(() => vendors.id),
    state: varchar('state', { length: 12, enum: QUOTE_STATES }).notNull(),
    /** What is wanted, in the words of whoever asks: all that is seen of the order. */
    wanted: text('wanted').notNull(),
    askedAt: instant('asked_at').notNull(),
    askedBy: int('asked_by').references(() => accounts.id),
    askedByName: varchar('asked_by_name', { length: 120 }).notNull(),
    dueAt: instant('due_at').notNull(),
    netMinor: minor('net_minor'),
    taxBp: basisPoints('tax_bp'),
    /** When they could begin. */
    earliestAt: instant('earliest_at'),
    validUntil: date('valid_until', { mode: 'string' }),
    answer: varchar('answer', { length: 1000 }),
    answeredAt: instant('answered_at'),
    /** When they are reminded, and the desk told, while they say nothing; empty once that was done. */
    remindAt: instant('remind_at'),
    tellAt: instant('tell_at'),
    nonce: varchar('nonce', { length: 32 }).notNull(),
    tokenHash: tokenHash('token_hash').notNull(),
    version: version(),
  },
  (table) => [
    uniqueIndex('quote_token').on(table.tokenHash),
    index('quote_order').on(table.orderId),
    index('quote_vendor').on(table.vendorId),
    index('quote_remind').on(table.remindAt),
    index('quote_tell').on(table.tellAt),
  ],
)
