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

/** Where a browser is told of news: at a push service of its own choosing, sealed for it alone (RFC 8030, 8291). */
export const pushSubscriptions = mysqlTable(
  'push_subscription',
  {
    id: id(),
    accountId: int('account_id')
      .notNull()
      .references(() => accounts.id),
    /** The device it is on, where that carries jobs along. */
    deviceId: int('device_id').references(() => devices.id),
    endpoint: varchar('endpoint', { length: 700 }).notNull(),
    /** SHA-256 of the endpoint in hex: an endpoint is too long for an index. */
    endpointHash: varchar('endpoint_hash', { length: 64 }).notNull(),
    p256dh: varchar('p256dh', { length: 120 }).notNull(),
    auth: varchar('auth', { length: 40 }).notNull(),
    at: instant('at').notNull(),
  },
  (table) => [uniqueIndex('push_subscription_once').on(table.endpointHash), index('push_subscription_account').on(table.accountId)],
)
