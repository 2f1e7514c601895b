import { PHOTO_STAGES } from '#core/field'
import { bigint, boolean, index, int, json, mediumtext, mysqlTable, primaryKey, smallint, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { EventKind } from '#core/events'
import { SERIES } from '#core/kit'
import { REGISTERS } from '#core/registers'
import { id, instant, mediumblob } from './columns'
import { visits } from './dispatch'
import { articles } from './help'
import { pushSubscriptions } from './devices'
import { orders } from './orders'
import { accounts } from './people'
import { sites } from './places'
import { comments, followers, requests } from './requests'
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
    kind: varchar('kind', { length: 40 }).$type<EventKind>().notNull(),
    siteId: int('site_id').references(() => sites.id),
    requestId: int('request_id').references(() => requests.id),
    orderId: int('order_id').references(() => orders.id),
    visitId: int('visit_id').references(() => visits.id),
    /** A record of a register, and which one. */
    register: varchar('register', { length: 12, enum: REGISTERS }),
    recordId: int('record_id'),
    actorId: int('actor_id').references(() => accounts.id),
    actorName: varchar('actor_name', { length: 120 }).notNull(),
    fromState: varchar('from_state', { length: 12 }),
    toState: varchar('to_state', { length: 12 }),
    reason: text('reason'),
    details: json('details').$type<EventDetails>(),
  },
  (table) => [
    uniqueIndex('event_seq').on(table.seq),
    index('event_request').on(table.requestId, table.id),
    index('event_order').on(table.orderId, table.id),
    index('event_record').on(table.register, table.recordId, table.id),
  ],
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
    /** Whom it was written to, when they follow the request: what they answer is theirs and not its reporter's. */
    followerId: int('follower_id').references(() => followers.id),
    /** The message it answers, for the reader's mail program. */
    inReplyTo: varchar('in_reply_to', { length: 250 }),
    /** A file that goes along, and what it is called. */
    fileId: int('file_id').references(() => storedFiles.id),
    fileName: varchar('file_name', { length: 160 }),
    /** Invitations, or that there are none any more, as calendar programs read them, one after another. */
    calendar: mediumtext('calendar'),
    state: varchar('state', { length: 12, enum: ['waiting', 'sent', 'failed'] }).notNull(),
    attempts: smallint('attempts').notNull().default(0),
    nextAt: instant('next_at').notNull(),
    writtenAt: instant('written_at'),
    sentAt: instant('sent_at'),
    lastError: varchar('last_error', { length: 300 }),
  },
  (table) => [
    uniqueIndex('mail_once').on(table.eventId, table.occasion, table.to),
    index('mail_waiting').on(table.state, table.nextAt),
    index('mail_to').on(table.to, table.writtenAt),
  ],
)

/** An event of which somebody could not be told: tried a few times, then set aside until an administrator sends it again. */
export const untoldEvents = mysqlTable(
  'untold_event',
  {
    eventId: bigint('event_id', { mode: 'number' })
      .primaryKey()
      .references(() => events.id),
    attempts: smallint('attempts').notNull(),
    error: varchar('error', { length: 300 }).notNull(),
    nextAt: instant('next_at').notNull(),
    setAsideAt: instant('set_aside_at'),
  },
  (table) => [index('untold_event_next').on(table.setAsideAt, table.nextAt)],
)

/** A file too large for one row, or kept as it came: its content lies in pieces, so that it is written and read as a stream. */
export const storedFiles = mysqlTable('stored_file', {
  id: id(),
  bytes: int('bytes').notNull(),
  /** SHA-256 of the whole, in hex: checked whenever it is read. */
  checksum: varchar('checksum', { length: 64 }).notNull(),
  at: instant('at').notNull(),
})

export const storedPieces = mysqlTable(
  'stored_piece',
  {
    fileId: int('file_id')
      .notNull()
      .references(() => storedFiles.id, { onDelete: 'cascade' }),
    position: int('position').notNull(),
    content: mediumblob('content').notNull(),
  },
  (table) => [primaryKey({ columns: [table.fileId, table.position] })],
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
    /** The page it leads to, where that is no request or order. */
    leadsTo: varchar('leads_to', { length: 80 }),
    at: instant('at').notNull(),
    readAt: instant('read_at'),
  },
  (table) => [uniqueIndex('notice_once').on(table.eventId, table.accountId), index('notice_account').on(table.accountId, table.readAt)],
)

/** News that is to be told to a browser still. */
export const pushes = mysqlTable(
  'push',
  {
    id: id(),
    subscriptionId: int('subscription_id')
      .notNull()
      .references(() => pushSubscriptions.id, { onDelete: 'cascade' }),
    sentence: varchar('sentence', { length: 300 }).notNull(),
    /** The page it leads to. */
    leadsTo: varchar('leads_to', { length: 80 }).notNull(),
    tries: int('tries').notNull().default(0),
    nextAt: instant('next_at').notNull(),
  },
  (table) => [index('push_next').on(table.nextAt), index('push_subscription').on(table.subscriptionId)],
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
    /** Its content, here when it is small; a large one lies in the file store. */
    content: mediumblob('content'),
    storedId: int('stored_id').references(() => storedFiles.id),
    /** Whether the reporter may see it through their link. */
    shared: boolean('shared').notNull().default(false),
    vendorId: int('vendor_id').references(() => vendors.id),
    commentId: int('comment_id').references(() => comments.id),
    /** What was said on an order that it belongs to. */
    messageId: int('message_id'),
    articleId: int('article_id').references(() => articles.id),
    /** A picture is re-encoded and shown; a document is kept as it came and only ever downloaded. */
    kind: varchar('kind', { length: 12, enum: ['picture', 'document'] })
      .notNull()
      .default('picture'),
    thumb: mediumblob('thumb'),
    /** Of a picture from a job: how it was found, how it was left, or who signed. */
    stage: varchar('stage', { length: 12, enum: [...PHOTO_STAGES, 'signature'] }),
    at: instant('at').notNull(),
  },
  (table) => [
    uniqueIndex('attachment_claim').on(table.claimHash),
    index('attachment_request').on(table.requestId),
    index('attachment_order').on(table.orderId),
  ],
)

/** Numbers run on by themselves; the next one can be set when moving over from another system. */
export const numberings = mysqlTable(
  'numbering',
  {
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    series: varchar('series', { length: 12, enum: SERIES }).notNull(),
    prefix: varchar('prefix', { length: 8 }).notNull(),
    next: int('next').notNull(),
    /** How many digits a number has at least. */
    digits: smallint('digits').notNull().default(5),
  },
  (table) => [primaryKey({ columns: [table.siteId, table.series] })],
)

export const settings = mysqlTable('setting', {
  name: varchar('name', { length: 60 }).primaryKey(),
  value: json('value').$type<unknown>().notNull(),
})
