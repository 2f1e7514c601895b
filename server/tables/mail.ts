import { index, int, mysqlTable, primaryKey, smallint, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { id, instant, mediumblob } from './columns'
import { storedFiles } from './kit'
import { accounts } from './people'
import { sites } from './places'
import { requests } from './requests'

/** A mail as it came in, kept before anything is made of it. */
export const incomingMails = mysqlTable(
  'incoming_mail',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    /** SHA-256 of its Message-ID, its sender and its body: the same message delivered twice counts once, another with its id does not. */
    onceKey: varchar('once_key', { length: 250 }).notNull(),
    messageId: varchar('message_id', { length: 250 }),
    sender: varchar('sender', { length: 190 }).notNull(),
    /** The address it came to, with the tag of a conversation when it is a reply. */
    recipient: varchar('recipient', { length: 250 }).notNull(),
    subject: varchar('subject', { length: 250 }),
    receivedAt: instant('received_at').notNull(),
    state: varchar('state', { length: 12, enum: ['waiting', 'request', 'joined', 'ignored', 'refused', 'dismissed'] }).notNull(),
    reason: varchar('reason', { length: 300 }),
    attempts: smallint('attempts').notNull().default(0),
    /** The whole message as it came. */
    fileId: int('file_id').references(() => storedFiles.id),
    /** Mail of before the file store; new mail has none. */
    raw: mediumblob('raw'),
    requestId: int('request_id').references(() => requests.id),
    /** What of it did not fit where it went, in a sentence: the desk opens all of it. */
    leftOut: varchar('left_out', { length: 400 }),
    dismissedBy: int('dismissed_by').references(() => accounts.id),
    dismissedAt: instant('dismissed_at'),
  },
  (table) => [
    uniqueIndex('incoming_mail_once').on(table.siteId, table.onceKey),
    index('incoming_mail_waiting').on(table.state, table.id),
    index('incoming_mail_message').on(table.messageId),
    index('incoming_mail_request').on(table.requestId),
  ],
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
