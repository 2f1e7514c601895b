import { index, int, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { CLOSURE_STATES, TOLD_STATES } from '#core/closures'
import { id, instant, version } from './columns'
import { bulletins } from './help'
import { orders } from './orders'
import { accounts } from './people'
import { places, sites } from './places'

/** A booking as it was when it was found, its instants as texts. */
export interface KeptBooking {
  key: string
  from: string
  until: string
  what: string | null
  who: string | null
  email: string | null
  since?: boolean
}

/** A space taken out of use for an order for a period; the bookings system is told of each version of it. */
export const closures = mysqlTable(
  'closure',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    placeId: int('place_id')
      .notNull()
      .references(() => places.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    fromAt: instant('from_at').notNull(),
    untilAt: instant('until_at').notNull(),
    /** When it was to end, once it ends sooner. */
    plannedUntilAt: instant('planned_until_at'),
    reason: varchar('reason', { length: 200 }).notNull(),
    state: varchar('state', { length: 12, enum: CLOSURE_STATES }).notNull(),
    affects: json('affects').$type<KeptBooking[]>().notNull(),
    bulletinId: int('bulletin_id').references(() => bulletins.id),
    /** What names it in the bookings system, for good. */
    uid: varchar('uid', { length: 80 }).notNull(),
    /** What the bookings system last answered it is at. */
    etag: varchar('etag', { length: 200 }),
    told: varchar('told', { length: 12, enum: TOLD_STATES }).notNull(),
    /** The version that was told of last; 0 before any was. */
    toldVersion: int('told_version').notNull().default(0),
    toldAt: instant('told_at'),
    attempts: int('attempts').notNull().default(0),
    /** When it is told next: now, or after a pause; nobody else tells it before. */
    tryAt: instant('try_at').notNull(),
    problem: varchar('problem', { length: 200 }),
    createdBy: int('created_by').references(() => accounts.id),
    createdByName: varchar('created_by_name', { length: 120 }).notNull(),
    version: version(),
  },
  (table) => [
    index('closure_place').on(table.placeId, table.untilAt),
    index('closure_order').on(table.orderId),
    index('closure_told').on(table.told, table.tryAt),
  ],
)
