import { sql } from 'drizzle-orm'
import { boolean, index, int, json, mysqlTable, primaryKey, smallint, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { CHANNELS, CONSEQUENCES, LIKELIHOODS, PRIORITIES, REQUEST_STATES, SEVERITIES, URGENCIES } from '#core/requests'
import type { Answers, Question } from '#core/requests'
import { id, instant, tokenHash, version } from './columns'
import { payers } from './ledger'
import { apiKeys } from './open311'
import { orders } from './orders'
import { accounts, people, trades } from './people'
import { assets } from './assets'
import { places, sites } from './places'

/** Position of a device in WGS 84 degrees, an address in words, where a picture lies, their account. */
export interface SentBySystem {
  lat?: number
  long?: number
  address?: string
  mediaUrl?: string
  accountId?: string
}

export const categories = mysqlTable('category', {
  id: id(),
  parentId: int('parent_id').references((): AnyMySqlColumn => categories.id),
  code: varchar('code', { length: 32 }).notNull().unique(),
  name: varchar('name', { length: 80 }).notNull(),
  tradeId: int('trade_id').references(() => trades.id),
  /** A few words under the name, for those who do not speak maintenance. */
  hint: varchar('hint', { length: 160 }),
  position: int('position').notNull().default(0),
  /** Offered no longer; requests of before keep it. */
  retiredAt: instant('retired_at'),
})

/** The questions of a category as they stood from one edit to the next: never changed, only followed by another. */
export const categoryForms = mysqlTable(
  'category_form',
  {
    id: id(),
    categoryId: int('category_id')
      .notNull()
      .references(() => categories.id),
    round: int('round').notNull(),
    questions: json('questions').$type<Question[]>().notNull(),
    madeAt: instant('made_at').notNull(),
    madeBy: int('made_by').references(() => accounts.id),
  },
  (table) => [uniqueIndex('category_form_round').on(table.categoryId, table.round)],
)

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
    /** The questions that were asked, and what was answered. */
    formId: int('form_id').references(() => categoryForms.id),
    answers: json('answers').$type<Answers>(),
    /** What a sending system said besides, and which key it used. */
    sentBy: json('sent_by').$type<SentBySystem>(),
    apiKeyId: int('api_key_id').references((): AnyMySqlColumn => apiKeys.id),
    urgency: varchar('urgency', { length: 12, enum: URGENCIES }),
    hazardSeverity: varchar('hazard_severity', { length: 12, enum: [...SEVERITIES, 'none'] }),
    hazardLikelihood: varchar('hazard_likelihood', { length: 12, enum: LIKELIHOODS }),
    priority: varchar('priority', { length: 12, enum: PRIORITIES }),
    /** 1 for Emergency to 4 for Deferred, nothing before there is one: so that lists sort by it. */
    priorityRank: smallint('priority_rank').generatedAlwaysAs(sql`nullif(field(\`priority\`, 'emergency', 'urgent', 'routine', 'deferred'), 0)`, {
      mode: 'stored',
    }),
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
    /** Said to be not fixed: the request it repeats. */
    repeatsId: int('repeats_id').references((): AnyMySqlColumn => requests.id),
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
    index('request_numbered').on(table.number),
    index('request_queue').on(table.state, table.siteId, table.triageDueAt, table.id),
    index('request_reference').on(table.outsideReference),
    index('request_priority').on(table.priorityRank, table.triageDueAt, table.id),
    index('request_due').on(table.state, table.triageDueAt, table.id),
    index('request_decided').on(table.state, table.decidedAt, table.id),
    index('request_newest').on(table.receivedAt, table.id),
    index('request_received').on(table.siteId, table.receivedAt, table.id),
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

/** Somebody else with the same trouble: hears how it goes on a link of their own. */
export const followers = mysqlTable(
  'request_follower',
  {
    id: id(),
    requestId: int('request_id')
      .notNull()
      .references(() => requests.id),
    email: varchar('email', { length: 190 }).notNull(),
    name: varchar('name', { length: 120 }),
    at: instant('at').notNull(),
    linkHash: tokenHash('link_hash').notNull(),
    linkNonce: varchar('link_nonce', { length: 32 }).notNull(),
    /** The address was shown to be theirs by its link: nothing but that link is sent to it before. */
    confirmedAt: instant('confirmed_at'),
  },
  (table) => [uniqueIndex('request_follower_once').on(table.requestId, table.email), uniqueIndex('request_follower_link').on(table.linkHash)],
)

/** What is said about a request: notes stay inside, messages go to the reporter or come from them. */
export const comments = mysqlTable(
  'comment',
  {
    id: id(),
    requestId: int('request_id')
      .notNull()
      .references(() => requests.id),
    kind: varchar('kind', { length: 12, enum: ['note', 'message'] }).notNull(),
    /** Empty when the reporter wrote it. */
    accountId: int('account_id').references(() => accounts.id),
    authorName: varchar('author_name', { length: 120 }).notNull(),
    text: text('text').notNull(),
    /** What a reply by mail repeated, folded away. */
    quoted: text('quoted'),
    at: instant('at').notNull(),
    /** What it was said as on an order, where it was said there. */
    messageId: int('message_id'),
  },
  (table) => [index('comment_request').on(table.requestId, table.id)],
)

/** Lets a reporter see everything they sent: asked for by mail address, sent to that address. */
export const reporterLinks = mysqlTable(
  'reporter_link',
  {
    id: id(),
    email: varchar('email', { length: 190 }).notNull(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    tokenHash: tokenHash('token_hash').notNull(),
    nonce: varchar('nonce', { length: 32 }).notNull(),
    createdAt: instant('created_at').notNull(),
    expiresAt: instant('expires_at').notNull(),
  },
  (table) => [uniqueIndex('reporter_link_token').on(table.tokenHash)],
)
