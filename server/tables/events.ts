import { bigint, boolean, index, int, json, mysqlTable, primaryKey, smallint, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { id, instant, mediumblob } from './columns'
import { orders, visits } from './orders'
import { accounts } from './people'
import { sites } from './places'
import { articles } from './help'
import { comments, requests } from './requests'
import { vendors } from './vendors'

/** What an event tells beyond its columns; shown on the timeline, read by the mails. */
export interface EventDetails {
  fields?: Record<string, { from: unknown; to: unknown }>
  [key: string]: unknown
}

/**
 * One thing that happened, written in the transaction of the change it tells of. `seq` is given
 * after the commit, in order and without gaps, so that a reader who has seen seq n misses nothing.
 */
export const events = mysqlTable(
  'event',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().autoincrement(),
    seq: bigint('seq', { mode: 'number' }),
    at: instant('at').notNull(),
    kind: varchar('kind', { length: 40 }).notNull(),
    siteId: int('site_id').references(() => sites.id),
    requestId: int('request_id').references(() => requests.id),
    orderId: int('order_id').references(() => orders.id),
    visitId: int('visit_id').references(() => visits.id),
    actorId: int('actor_id').references(() => accounts.id),
    actorName: varchar('actor_name', { length: 120 }).notNull(),
    fromState: varchar('from_state', { length: 12 }),
    toState: varchar('to_state', { length: 12 }),
    reason: text('reason'),
    details: json('details').$type<EventDetails>(),
  },
  (table) => [uniqueIndex('event_seq').on(table.seq), index('event_request').on(table.requestId, table.id), index('event_order').on(table.orderId, table.id)],
)

/** The answer to a POST, kept under its key in the same transaction: repeating it changes nothing. */
export const idempotencyKeys = mysqlTable(
  'idempotency_key',
  {
    id: id(),
    scope: varchar('scope', { length: 80 }).notNull(),
    key: varchar('key', { length: 80 }).notNull(),
    endpoint: varchar('endpoint', { length: 80 }).notNull(),
    inputHash: varchar('input_hash', { length: 64 }).notNull(),
    answer: json('answer').$type<unknown>(),
    at: instant('at').notNull(),
  },
  (table) => [uniqueIndex('idempotency_once').on(table.scope, table.key), index('idempotency_at').on(table.at)],
)

export const mails = mysqlTable(
  'mail',
  {
    id: id(),
    eventId: bigint('event_id', { mode: 'number' }).references(() => events.id),
    occasion: varchar('occasion', { length: 40 }).notNull(),
    to: varchar('to', { length: 190 }).notNull(),
    subject: varchar('subject', { length: 250 }).notNull(),
    text: text('text').notNull(),
    html: text('html'),
    /** The request it is about: replies find their way back by it. */
    requestId: int('request_id').references(() => requests.id),
    from: varchar('from', { length: 190 }),
    /** The message it answers, for the reader's mail program. */
    inReplyTo: varchar('in_reply_to', { length: 250 }),
    state: varchar('state', { length: 12, enum: ['waiting', 'sent', 'failed'] }).notNull(),
    attempts: smallint('attempts').notNull().default(0),
    nextAt: instant('next_at').notNull(),
    sentAt: instant('sent_at'),
    lastError: varchar('last_error', { length: 300 }),
  },
  (table) => [uniqueIndex('mail_once').on(table.eventId, table.occasion, table.to), index('mail_waiting').on(table.state, table.nextAt)],
)

/** What somebody was told inside the application. */
export const notices = mysqlTable(
  'notice',
  {
    id: id(),
    eventId: bigint('event_id', { mode: 'number' })
      .notNull()
      .references(() => events.id),
    accountId: int('account_id')
      .notNull()
      .references(() => accounts.id),
    sentence: varchar('sentence', { length: 300 }).notNull(),
    orderId: int('order_id').references(() => orders.id),
    requestId: int('request_id').references(() => requests.id),
    at: instant('at').notNull(),
    readAt: instant('read_at'),
  },
  (table) => [uniqueIndex('notice_once').on(table.eventId, table.accountId), index('notice_account').on(table.accountId, table.readAt)],
)

/** A file as it is served: pictures re-encoded without position data, in the database beside their row. */
export const attachments = mysqlTable(
  'attachment',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    /** What an upload is claimed by, before it hangs on anything. */
    claimHash: varchar('claim_hash', { length: 64 }),
    requestId: int('request_id').references(() => requests.id),
    orderId: int('order_id').references(() => orders.id),
    visitId: int('visit_id').references(() => visits.id),
    name: varchar('name', { length: 160 }).notNull(),
    mime: varchar('mime', { length: 60 }).notNull(),
    width: int('width'),
    height: int('height'),
    bytes: int('bytes').notNull(),
    content: mediumblob('content').notNull(),
    /** Whether the reporter may see it through their link. */
    shared: boolean('shared').notNull().default(false),
    vendorId: int('vendor_id').references(() => vendors.id),
    commentId: int('comment_id').references(() => comments.id),
    articleId: int('article_id').references(() => articles.id),
    /** A picture is re-encoded and shown; a document is kept as it came and only ever downloaded. */
    kind: varchar('kind', { length: 12, enum: ['picture', 'document'] })
      .notNull()
      .default('picture'),
    thumb: mediumblob('thumb'),
    at: instant('at').notNull(),
  },
  (table) => [
    uniqueIndex('attachment_claim').on(table.claimHash),
    index('attachment_request').on(table.requestId),
    index('attachment_order').on(table.orderId),
  ],
)

/** A mail as it came in, kept before anything is made of it. */
export const incomingMails = mysqlTable(
  'incoming_mail',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    /** Its Message-ID, or a hash of all of it: the same message delivered twice counts once. */
    onceKey: varchar('once_key', { length: 250 }).notNull(),
    sender: varchar('sender', { length: 190 }).notNull(),
    /** The address it came to, with the tag of a conversation when it is a reply. */
    recipient: varchar('recipient', { length: 250 }).notNull(),
    subject: varchar('subject', { length: 250 }),
    receivedAt: instant('received_at').notNull(),
    state: varchar('state', { length: 12, enum: ['waiting', 'request', 'joined', 'ignored', 'refused'] }).notNull(),
    reason: varchar('reason', { length: 300 }),
    attempts: smallint('attempts').notNull().default(0),
    raw: mediumblob('raw').notNull(),
    requestId: int('request_id').references(() => requests.id),
  },
  (table) => [uniqueIndex('incoming_mail_once').on(table.siteId, table.onceKey), index('incoming_mail_waiting').on(table.state, table.id)],
)

/** The words of a mail for an occasion, where a site has its own. */
export const mailWordings = mysqlTable(
  'mail_wording',
  {
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    occasion: varchar('occasion', { length: 40 }).notNull(),
    subject: varchar('subject', { length: 200 }).notNull(),
    text: text('text').notNull(),
  },
  (table) => [primaryKey({ columns: [table.siteId, table.occasion] })],
)
