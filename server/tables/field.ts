import { index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { STINT_KINDS } from '#core/ledger'
import { PERMITS } from '#core/methods'
import { id, instant, minor } from './columns'
import { visits } from './dispatch'
import { attachments } from './kit'
import { orders } from './orders'
import { technicians } from './people'

/** One stretch of logged time. Minutes and cost are computed when it ends and never typed. */
export const stints = mysqlTable(
  'stint',
  {
    id: id(),
    visitId: int('visit_id')
      .notNull()
      .references(() => visits.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    technicianId: int('technician_id').references(() => technicians.id),
    /** Set to the technician while the clock runs: nobody can be on two jobs at once. */
    runningTechnicianId: int('running_technician_id'),
    kind: varchar('kind', { length: 12, enum: STINT_KINDS }).notNull(),
    startAt: instant('start_at').notNull(),
    endAt: instant('end_at'),
    minutes: int('minutes'),
    perHourMinor: minor('per_hour_minor'),
    costMinor: minor('cost_minor'),
  },
  (table) => [
    uniqueIndex('stint_running').on(table.runningTechnicianId),
    index('stint_order').on(table.orderId),
    index('stint_visit').on(table.visitId),
    index('stint_technician').on(table.technicianId, table.startAt),
  ],
)

/** Leave in writing to do dangerous work, as whoever holds it wrote it down. */
export const permits = mysqlTable(
  'permit',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    visitId: int('visit_id')
      .notNull()
      .references(() => visits.id),
    kind: varchar('kind', { length: 16, enum: PERMITS }).notNull(),
    number: varchar('number', { length: 40 }).notNull(),
    fromAt: instant('from_at').notNull(),
    untilAt: instant('until_at').notNull(),
    at: instant('at').notNull(),
  },
  (table) => [index('permit_order').on(table.orderId)],
)

/** Who was on site, as they signed. */
export const signatures = mysqlTable(
  'signature',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    visitId: int('visit_id')
      .notNull()
      .references(() => visits.id),
    name: varchar('name', { length: 80 }).notNull(),
    attachmentId: int('attachment_id')
      .notNull()
      .references(() => attachments.id),
    at: instant('at').notNull(),
  },
  (table) => [index('signature_order').on(table.orderId)],
)

/** Orders whose workers are alone there, and how often they say that they are all right. */
export const loneWork = mysqlTable('lone_work', {
  orderId: int('order_id')
    .primaryKey()
    .references(() => orders.id),
  everyMinutes: int('every_minutes').notNull(),
})

/** Who is alone on a job now, and by when they check in. */
export const loneWatches = mysqlTable(
  'lone_watch',
  {
    visitId: int('visit_id')
      .primaryKey()
      .references(() => visits.id),
    checkedAt: instant('checked_at').notNull(),
    dueAt: instant('due_at').notNull(),
    /** When the desk was told that they have not. */
    toldAt: instant('told_at'),
  },
  (table) => [index('lone_watch_due').on(table.toldAt, table.dueAt)],
)
