import { boolean, double, index, int, mysqlTable, primaryKey, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { FINDING_SEVERITIES } from '#core/findings'
import { assets } from './assets'
import { id, instant } from './columns'
import { visits } from './dispatch'
import { attachments } from './kit'
import { orderSteps } from './methods'
import { orders } from './orders'
import { places, sites } from './places'

/** Something wrong that was noticed on a job. Its state follows from what became of it. */
export const findings = mysqlTable(
  'finding',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    /** On which job it was found. */
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    visitId: int('visit_id')
      .notNull()
      .references(() => visits.id),
    /** What whoever recorded it calls it, before there is an id. */
    mark: varchar('mark', { length: 36 }).notNull(),
    /** The step whose value or answer it is. */
    stepId: int('step_id').references(() => orderSteps.id, { onDelete: 'set null' }),
    placeId: int('place_id').references(() => places.id),
    assetId: int('asset_id').references(() => assets.id),
    /** Where on the plan of a floor, in metres. */
    planId: int('plan_id').references(() => places.id),
    east: double('east'),
    north: double('north'),
    text: text('text').notNull(),
    severity: varchar('severity', { length: 12, enum: FINDING_SEVERITIES }).notNull(),
    fixedNow: boolean('fixed_now').notNull().default(false),
    foundBy: varchar('found_by', { length: 120 }).notNull(),
    at: instant('at').notNull(),
    /** The order that answers it. */
    followUpOrderId: int('follow_up_order_id').references(() => orders.id),
    setAsideAt: instant('set_aside_at'),
    setAsideBy: varchar('set_aside_by', { length: 120 }),
    setAsideReason: text('set_aside_reason'),
  },
  (table) => [
    uniqueIndex('finding_mark').on(table.visitId, table.mark),
    index('finding_order').on(table.orderId),
    index('finding_answer').on(table.followUpOrderId),
    index('finding_open').on(table.siteId, table.fixedNow, table.setAsideAt),
  ],
)

/** Pictures of what was found; they are pictures of the order it was found on, too. */
export const findingPhotos = mysqlTable(
  'finding_photo',
  {
    findingId: int('finding_id')
      .notNull()
      .references(() => findings.id, { onDelete: 'cascade' }),
    attachmentId: int('attachment_id')
      .notNull()
      .references(() => attachments.id, { onDelete: 'cascade' }),
  },
  (table) => [primaryKey({ columns: [table.findingId, table.attachmentId] }), index('finding_photo_attachment').on(table.attachmentId)],
)
