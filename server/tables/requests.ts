import { boolean, index, int, mysqlTable, primaryKey, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { CONSEQUENCES, PRIORITIES, REQUEST_STATES, URGENCIES } from '#core/requests'
import { id, instant, tokenHash, version } from './columns'
import { payers } from './ledger'
import { orders } from './orders'
import { accounts, people, trades } from './people'
import { assets, places, sites } from './places'

export const CHANNELS = ['counter', 'call', 'email', 'visit', 'inspection', 'sensor', 'system'] as const

export const categories = mysqlTable('category', {
  id: id(),
  parentId: int('parent_id').references((): AnyMySqlColumn => categories.id),
  code: varchar('code', { length: 32 }).notNull().unique(),
  name: varchar('name', { length: 80 }).notNull(),
  tradeId: int('trade_id').references(() => trades.id),
})

export const requests = mysqlTable(
  'request',
  {
    id: id(),
    number: varchar('number', { length: 16 }).notNull(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    state: varchar('state', { length: 12, enum: REQUEST_STATES }).notNull(),
    channel: varchar('channel', { length: 12, enum: CHANNELS }).notNull(),
    summary: varchar('summary', { length: 140 }).notNull(),
    description: text('description').notNull(),
    /** What the reporter wrote, kept beside every correction. */
    writtenSummary: varchar('written_summary', { length: 140 }).notNull(),
    writtenDescription: text('written_description').notNull(),
    reporterId: int('reporter_id').references(() => people.id),
    reporterName: varchar('reporter_name', { length: 120 }),
    reporterEmail: varchar('reporter_email', { length: 190 }),
    reporterPhone: varchar('reporter_phone', { length: 40 }),
    placeId: int('place_id').references(() => places.id),
    assetId: int('asset_id').references(() => assets.id),
    categoryId: int('category_id').references(() => categories.id),
    consequence: varchar('consequence', { length: 12, enum: CONSEQUENCES }),
    urgency: varchar('urgency', { length: 12, enum: URGENCIES }),
    priority: varchar('priority', { length: 12, enum: PRIORITIES }),
    prioritySentence: varchar('priority_sentence', { length: 300 }),
    priorityOverridden: boolean('priority_overridden').notNull().default(false),
    /** What the reporter wished for; never the priority. */
    wish: varchar('wish', { length: 200 }),
    payerId: int('payer_id').references(() => payers.id),
    outsideReference: varchar('outside_reference', { length: 80 }),
    receivedAt: instant('received_at').notNull(),
    takenUpAt: instant('taken_up_at'),
    takenUpBy: int('taken_up_by').references(() => accounts.id),
    decidedAt: instant('decided_at'),
    triageCloseAt: instant('triage_close_at').notNull(),
    triageDueAt: instant('triage_due_at').notNull(),
    question: text('question'),
    declineReason: text('decline_reason'),
    joinedToId: int('joined_to_id').references((): AnyMySqlColumn => requests.id),
    /** The reporter's private link: the hash finds it; the nonce and the server's secret make it again for mails. */
    linkHash: tokenHash('link_hash').notNull(),
    linkNonce: varchar('link_nonce', { length: 32 }).notNull(),
    linkExpiresAt: instant('link_expires_at').notNull(),
    linkRevokedAt: instant('link_revoked_at'),
    version: version(),
  },
  (table) => [
    uniqueIndex('request_number').on(table.siteId, table.number),
    uniqueIndex('request_link').on(table.linkHash),
    index('request_queue').on(table.state, table.siteId, table.triageDueAt, table.id),
    index('request_place').on(table.placeId, table.receivedAt),
    index('request_asset').on(table.assetId, table.receivedAt),
    index('request_reporter').on(table.reporterEmail, table.receivedAt),
  ],
)

/** One request may lead to several orders; one order may answer several requests. */
export const requestOrders = mysqlTable(
  'request_order',
  {
    requestId: int('request_id')
      .notNull()
      .references(() => requests.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
  },
  (table) => [primaryKey({ columns: [table.requestId, table.orderId] }), index('request_order_order').on(table.orderId)],
)
