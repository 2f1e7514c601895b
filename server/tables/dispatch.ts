import { index, int, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { VISIT_ANSWERS, VISIT_KINDS, VISIT_RESULTS, VISIT_STATES } from '#core/dispatch'
import { id, instant, tokenHash, version } from './columns'
import { orders } from './orders'
import { technicians } from './people'
import { vendors } from './vendors'

/** One planned or actual presence of a technician or a vendor on an order. */
export const visits = mysqlTable(
  'visit',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    technicianId: int('technician_id').references(() => technicians.id),
    vendorId: int('vendor_id').references(() => vendors.id),
    kind: varchar('kind', { length: 12, enum: VISIT_KINDS }).notNull(),
    state: varchar('state', { length: 12, enum: VISIT_STATES }).notNull(),
    plannedStart: instant('planned_start').notNull(),
    plannedEnd: instant('planned_end').notNull(),
    startedAt: instant('started_at'),
    endedAt: instant('ended_at'),
    result: varchar('result', { length: 12, enum: VISIT_RESULTS }),
    /** What the vendor said to being sent; nothing for our own people. */
    answer: varchar('answer', { length: 12, enum: VISIT_ANSWERS }),
    answeredAt: instant('answered_at'),
    answerNote: varchar('answer_note', { length: 300 }),
    proposedStart: instant('proposed_start'),
    proposedEnd: instant('proposed_end'),
    /** When a vendor who says nothing is reminded, and the desk told; empty once that was done. */
    remindAt: instant('remind_at'),
    tellAt: instant('tell_at'),
    /** When the desk was told that they have not answered. */
    silentAt: instant('silent_at'),
    /** What of its hazards was read by whoever has it, and when. */
    hazardsRead: text('hazards_read'),
    hazardsReadAt: instant('hazards_read_at'),
    /** Who of the vendor is there, as they say, and where they are called. */
    thereName: varchar('there_name', { length: 80 }),
    therePhone: varchar('there_phone', { length: 40 }),
    version: version(),
  },
  (table) => [
    index('visit_remind').on(table.remindAt),
    index('visit_tell').on(table.tellAt),
    index('visit_order').on(table.orderId),
    index('visit_technician').on(table.technicianId, table.plannedStart),
    index('visit_vendor').on(table.vendorId, table.plannedStart),
  ],
)

/** The link by which a vendor works without an account. Only the hash of its token is kept. */
export const vendorPasses = mysqlTable(
  'vendor_pass',
  {
    id: id(),
    visitId: int('visit_id')
      .notNull()
      .references(() => visits.id),
    nonce: varchar('nonce', { length: 32 }).notNull(),
    tokenHash: tokenHash('token_hash').notNull(),
    createdAt: instant('created_at').notNull(),
    expiresAt: instant('expires_at').notNull(),
    revokedAt: instant('revoked_at'),
    /** When a new link was asked for last, after this one had ended. */
    renewedAt: instant('renewed_at'),
  },
  (table) => [uniqueIndex('vendor_pass_token').on(table.tokenHash)],
)
