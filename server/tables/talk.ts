import { index, int, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { AUDIENCES, SPEAKERS } from '#core/talk'
import { id, instant } from './columns'
import { visits } from './dispatch'
import { orders } from './orders'
import { accounts } from './people'

/** What was said on an order, between the desk, those on it and whoever reported it. */
export const orderMessages = mysqlTable(
  'order_message',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    /** Of whoever said it on site, or of the vendor it is to. */
    visitId: int('visit_id').references(() => visits.id),
    /** What the phone it was written on calls it. */
    mark: varchar('mark', { length: 36 }).notNull(),
    speaker: varchar('speaker', { length: 8, enum: SPEAKERS }).notNull(),
    audience: varchar('audience', { length: 8, enum: AUDIENCES }).notNull(),
    accountId: int('account_id').references(() => accounts.id),
    authorName: varchar('author_name', { length: 120 }).notNull(),
    text: text('text').notNull(),
    at: instant('at').notNull(),
  },
  (table) => [index('order_message_order').on(table.orderId, table.id), uniqueIndex('order_message_mark').on(table.orderId, table.mark)],
)
