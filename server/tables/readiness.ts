import { int, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { READINESS } from '#core/readiness'
import { instant, version } from './columns'
import { orders } from './orders'
import { places } from './places'

/** How a space stands, as it was said last; what was said before stands on its timeline. */
export const spaceReadiness = mysqlTable('space_readiness', {
  placeId: int('place_id')
    .primaryKey()
    .references(() => places.id),
  state: varchar('state', { length: 16, enum: READINESS }).notNull(),
  note: varchar('note', { length: 200 }),
  at: instant('at').notNull(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  /** The order whose work left it so. */
  orderId: int('order_id').references(() => orders.id),
  version: version(),
})
