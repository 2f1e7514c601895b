import { index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { FEED_REGISTERS } from '#core/feeds'
import { id, instant, tokenHash } from './columns'
import { accounts } from './people'

/** A secret address from which a calendar program reads visits. Only the hash of its token is kept. */
export const feeds = mysqlTable(
  'feed',
  {
    id: id(),
    register: varchar('register', { length: 12, enum: FEED_REGISTERS }).notNull(),
    recordId: int('record_id').notNull(),
    /** Who subscribes, in words. */
    for: varchar('made_for', { length: 120 }).notNull(),
    nonce: varchar('nonce', { length: 32 }).notNull(),
    tokenHash: tokenHash('token_hash').notNull(),
    madeAt: instant('made_at').notNull(),
    madeBy: int('made_by').references(() => accounts.id),
    /** When a program read it last. */
    readAt: instant('read_at'),
    revokedAt: instant('revoked_at'),
  },
  (table) => [uniqueIndex('feed_token').on(table.tokenHash), index('feed_record').on(table.register, table.recordId)],
)
