import { boolean, index, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { BOOKING_STATES } from '#core/bookings'
import { id, instant, minor, version } from './columns'
import { orders } from './orders'
import { accounts } from './people'
import { sites } from './places'
import { equipment } from './stock'

/** A piece of equipment kept for an order for a period; with somebody from when it is handed out until it is given back. */
export const bookings = mysqlTable(
  'booking',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    equipmentId: int('equipment_id')
      .notNull()
      .references(() => equipment.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    fromAt: instant('from_at').notNull(),
    untilAt: instant('until_at').notNull(),
    state: varchar('state', { length: 12, enum: BOOKING_STATES }).notNull(),
    outAt: instant('out_at'),
    outBy: int('out_by').references(() => accounts.id),
    /** Who has it. */
    outTo: varchar('out_to', { length: 120 }),
    backAt: instant('back_at'),
    /** What a day of it cost when it was handed out, and how many are charged once it is back. */
    perDayMinor: minor('per_day_minor'),
    hiredDays: int('hired_days'),
    note: varchar('note', { length: 300 }),
    /** Whether somebody was told that it is not back by its end. */
    toldLate: boolean('told_late').notNull().default(false),
    version: version(),
  },
  (table) => [
    index('booking_equipment').on(table.equipmentId, table.fromAt),
    index('booking_order').on(table.orderId),
    index('booking_late').on(table.state, table.toldLate, table.untilAt),
  ],
)
