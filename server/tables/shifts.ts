import { date, index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { LEAVE_ASK_STATES } from '#core/shifts'
import { id, instant, version } from './columns'
import { accounts, teams, technicians } from './people'
import { sites } from './places'

/** Leave a technician asks for. What was agreed to stands among the leave of the technician. */
export const leaveAsks = mysqlTable(
  'leave_ask',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    technicianId: int('technician_id')
      .notNull()
      .references(() => technicians.id),
    /** Both included. */
    fromDay: date('from_day', { mode: 'string' }).notNull(),
    untilDay: date('until_day', { mode: 'string' }).notNull(),
    reason: varchar('reason', { length: 120 }),
    state: varchar('state', { length: 12, enum: LEAVE_ASK_STATES }).notNull(),
    askedAt: instant('asked_at').notNull(),
    decidedAt: instant('decided_at'),
    decidedBy: int('decided_by').references(() => accounts.id),
    decidedByName: varchar('decided_by_name', { length: 120 }),
    answer: varchar('answer', { length: 300 }),
    version: version(),
  },
  (table) => [index('leave_ask_site').on(table.siteId, table.state), index('leave_ask_technician').on(table.technicianId)],
)

/** Who of a team is on call, in turn. */
export const rotas = mysqlTable('rota', {
  teamId: int('team_id')
    .primaryKey()
    .references(() => teams.id),
  memberIds: json('member_ids').$type<number[]>().notNull(),
  startDay: date('start_day', { mode: 'string' }).notNull(),
  turnDays: int('turn_days').notNull(),
  handover: varchar('handover', { length: 5 }).notNull(),
  version: version(),
})

/** Somebody else is on call for a while. */
export const rotaSwaps = mysqlTable(
  'rota_swap',
  {
    id: id(),
    teamId: int('team_id')
      .notNull()
      .references(() => teams.id),
    technicianId: int('technician_id')
      .notNull()
      .references(() => technicians.id),
    fromAt: instant('from_at').notNull(),
    untilAt: instant('until_at').notNull(),
    reason: varchar('reason', { length: 120 }),
  },
  (table) => [uniqueIndex('rota_swap_once').on(table.teamId, table.fromAt, table.technicianId), index('rota_swap_team').on(table.teamId, table.untilAt)],
)
