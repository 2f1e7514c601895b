import { index, int, mediumtext, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { BULLETIN_KINDS } from '#core/help'
import { id, instant, version } from './columns'
import { accounts } from './people'
import { places, sites } from './places'
import { categories } from './requests'

/** What occupants should know before they call: a closure, works or an event, for some places, for a while. */
export const bulletins = mysqlTable(
  'bulletin',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    kind: varchar('kind', { length: 12, enum: BULLETIN_KINDS }).notNull(),
    title: varchar('title', { length: 140 }).notNull(),
    /** Clean rich text. */
    body: mediumtext('body').notNull(),
    startsAt: instant('starts_at').notNull(),
    endsAt: instant('ends_at').notNull(),
    writtenBy: int('written_by').references(() => accounts.id),
    withdrawnAt: instant('withdrawn_at'),
    version: version(),
  },
  (table) => [index('bulletin_time').on(table.siteId, table.endsAt)],
)

export const bulletinPlaces = mysqlTable(
  'bulletin_place',
  {
    bulletinId: int('bulletin_id')
      .notNull()
      .references(() => bulletins.id),
    placeId: int('place_id')
      .notNull()
      .references(() => places.id),
  },
  (table) => [primaryKey({ columns: [table.bulletinId, table.placeId] })],
)

/** A short help article: what to try, what to expect, whom to ask. */
export const articles = mysqlTable('article', {
  id: id(),
  siteId: int('site_id')
    .notNull()
    .references(() => sites.id),
  categoryId: int('category_id').references(() => categories.id),
  title: varchar('title', { length: 140 }).notNull(),
  body: mediumtext('body').notNull(),
  searchText: varchar('search_text', { length: 2000 }).notNull(),
  writtenBy: int('written_by').references(() => accounts.id),
  changedAt: instant('changed_at').notNull(),
  withdrawnAt: instant('withdrawn_at'),
  version: version(),
})
