import { int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { LIST_KINDS } from '#core/lists'
import { id, version } from './columns'
import { accounts, teams } from './people'

/** A list somebody wants to come back to: what is shown, as the address bar holds it. */
export const savedViews = mysqlTable(
  'saved_view',
  {
    id: id(),
    ownerId: int('owner_id')
      .notNull()
      .references(() => accounts.id),
    name: varchar('name', { length: 80 }).notNull(),
    kind: varchar('kind', { length: 16, enum: LIST_KINDS }).notNull().default('orders'),
    /** Shared with a team, with everybody, or kept to oneself. */
    sharedWith: varchar('shared_with', { length: 8, enum: ['nobody', 'team', 'all'] }).notNull(),
    teamId: int('team_id').references(() => teams.id),
    address: varchar('address', { length: 1500 }).notNull(),
    version: version(),
  },
  (table) => [uniqueIndex('saved_view_name').on(table.ownerId, table.name)],
)

/** The view the lists open with for a person. */
export const defaultViews = mysqlTable('default_view', {
  accountId: int('account_id')
    .primaryKey()
    .references(() => accounts.id),
  /** A view of their own making, or one that ships with the application. */
  viewKey: varchar('view_key', { length: 40 }).notNull(),
})
