import { index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { id, instant } from './columns'
import { accounts } from './people'

/**
 * A phone or computer that carries somebody's jobs along. What it keeps is sealed with a key that stands here, too:
 * once the device was ended, it forgets its own, and nobody reads what it keeps until that person signs in on it again.
 */
export const devices = mysqlTable(
  'device',
  {
    id: id(),
    accountId: int('account_id')
      .notNull()
      .references(() => accounts.id),
    /** What the device calls itself; it is no secret. */
    ident: varchar('ident', { length: 43 }).notNull(),
    name: varchar('name', { length: 120 }).notNull(),
    /** 256 bits in hex. */
    sealKey: varchar('seal_key', { length: 64 }).notNull(),
    createdAt: instant('created_at').notNull(),
    heardAt: instant('heard_at').notNull(),
    endedAt: instant('ended_at'),
  },
  (table) => [uniqueIndex('device_once').on(table.accountId, table.ident), index('device_ident').on(table.ident)],
)
