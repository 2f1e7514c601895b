import { int, mysqlTable, primaryKey, smallint, varchar } from 'drizzle-orm/mysql-core'
import { instant } from './columns'
import { places } from './places'

/** Who says how long a way takes: somebody, or the stints that were logged. */
export const WAY_SOURCES = ['hand', 'stints'] as const

/** Minutes from one place to another, and from whatever lies in the one to whatever lies in the other. */
export const travelTimes = mysqlTable(
  'travel_time',
  {
    fromId: int('from_id')
      .notNull()
      .references(() => places.id),
    toId: int('to_id')
      .notNull()
      .references(() => places.id),
    source: varchar('source', { length: 8, enum: WAY_SOURCES }).notNull(),
    minutes: smallint('minutes').notNull(),
    /** How many stints have shown it. */
    seen: int('seen'),
    by: varchar('said_by', { length: 120 }),
    at: instant('said_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.fromId, table.toId, table.source] })],
)
