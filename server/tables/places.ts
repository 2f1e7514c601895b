import { index, int, json, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import type { WorkCalendar } from '#core/kit'
import { PLACE_KINDS } from '#core/places'
import type { CounterFields } from '#core/requests'
import { id, inUse } from './columns'
import { payers } from './ledger'

export const sites = mysqlTable('site', {
  id: id(),
  code: varchar('code', { length: 8 }).notNull().unique(),
  name: varchar('name', { length: 120 }).notNull(),
  zone: varchar('zone', { length: 64 }).notNull(),
  currency: varchar('currency', { length: 3 }).notNull(),
  calendar: json('calendar').$type<WorkCalendar>().notNull(),
  calendarVersion: int('calendar_version').notNull().default(0),
  deskPhone: varchar('desk_phone', { length: 40 }).notNull(),
  deskEmail: varchar('desk_email', { length: 190 }).notNull(),
  /** Working minutes within which a new request is triaged. */
  triageMinutes: int('triage_minutes').notNull(),
  /** Which fields the Counter asks for; empty for the usual ones. */
  counterFields: json('counter_fields').$type<CounterFields>(),
})

/** Site, building, floor, space or grounds: one tree. `path` is "/1/7/31/", the ids from the root. */
export const places = mysqlTable(
  'place',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    parentId: int('parent_id').references((): AnyMySqlColumn => places.id),
    kind: varchar('kind', { length: 12, enum: PLACE_KINDS }).notNull(),
    code: varchar('code', { length: 32 }).notNull(),
    name: varchar('name', { length: 120 }).notNull(),
    path: varchar('path', { length: 190 }).notNull(),
    /** Folded code, name and names above, for search. */
    searchText: varchar('search_text', { length: 400 }).notNull(),
    access: text('access'),
    /** Where it stands, in degrees: "53.2707, -9.0568". */
    position: varchar('position', { length: 40 }),
    payerId: int('payer_id').references(() => payers.id),
    ...inUse(),
  },
  (table) => [
    uniqueIndex('place_code').on(table.siteId, table.code),
    index('place_path').on(table.path),
    index('place_parent').on(table.parentId),
    index('place_find').on(table.siteId, table.code, table.retiredAt, table.searchText),
  ],
)
