import { int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { id, instant, tokenHash } from './columns'
import { accounts } from './people'
import { sites } from './places'

/** A program that may send requests. */
export const apiKeys = mysqlTable(
  'api_key',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    name: varchar('name', { length: 80 }).notNull(),
    keyHash: tokenHash('key_hash').notNull(),
    createdAt: instant('created_at').notNull(),
    createdBy: int('created_by').references(() => accounts.id),
    lastUsedAt: instant('last_used_at'),
    revokedAt: instant('revoked_at'),
  },
  (table) => [uniqueIndex('api_key_hash').on(table.keyHash)],
)
