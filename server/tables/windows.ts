import { index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { OFFER_STATES } from '#core/windows'
import { id, instant, tokenHash, version } from './columns'
import { orders } from './orders'
import { accounts } from './people'
import { sites } from './places'

/** Times for access offered to somebody outside the desk, who answers by a link of their own. */
export const timeOffers = mysqlTable(
  'time_offer',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    name: varchar('name', { length: 120 }).notNull(),
    email: varchar('email', { length: 190 }).notNull(),
    times: json('times').$type<{ from: string; until: string }[]>().notNull(),
    note: varchar('note', { length: 300 }),
    state: varchar('state', { length: 12, enum: OFFER_STATES }).notNull(),
    /** Which of the times, by when it begins. */
    chosenFrom: instant('chosen_from'),
    answer: varchar('answer', { length: 300 }),
    askedAt: instant('asked_at').notNull(),
    askedBy: int('asked_by').references(() => accounts.id),
    askedByName: varchar('asked_by_name', { length: 120 }).notNull(),
    answeredAt: instant('answered_at'),
    nonce: varchar('nonce', { length: 32 }).notNull(),
    tokenHash: tokenHash('token_hash').notNull(),
    version: version(),
  },
  (table) => [uniqueIndex('time_offer_token').on(table.tokenHash), index('time_offer_order').on(table.orderId)],
)
