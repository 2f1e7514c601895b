import { int, json, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { RuleBook } from '#core/orders'
import { PRIORITIES } from '#core/requests'
import { TARGET_CLOCKS } from '#core/orders'
import { id, version } from './columns'
import { sites } from './places'
import { categories } from './requests'

/** Numbers run on by themselves; the next one can be set when moving over from another system. */
export const numberings = mysqlTable(
  'numbering',
  {
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    series: varchar('series', { length: 12, enum: ['request', 'order'] }).notNull(),
    prefix: varchar('prefix', { length: 4 }).notNull(),
    next: int('next').notNull(),
  },
  (table) => [primaryKey({ columns: [table.siteId, table.series] })],
)

export const targetRules = mysqlTable(
  'target_rule',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    priority: varchar('priority', { length: 12, enum: PRIORITIES }).notNull(),
    clock: varchar('clock', { length: 12, enum: TARGET_CLOCKS }).notNull(),
    responseMinutes: int('response_minutes').notNull(),
    completionMinutes: int('completion_minutes').notNull(),
  },
  (table) => [uniqueIndex('target_rule_priority').on(table.siteId, table.priority)],
)

export const settings = mysqlTable('setting', {
  name: varchar('name', { length: 60 }).primaryKey(),
  value: json('value').$type<unknown>().notNull(),
})

/** What a site decides about its own orders; sections it never touched are the usual ones. */
export const ruleBooks = mysqlTable('rule_book', {
  siteId: int('site_id')
    .primaryKey()
    .references(() => sites.id),
  content: json('content').$type<Partial<RuleBook>>().notNull(),
  version: version(),
})

/** What a priority promises for one category, where that differs from the site's usual promise. */
export const targetExceptions = mysqlTable(
  'target_exception',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    categoryId: int('category_id')
      .notNull()
      .references(() => categories.id),
    priority: varchar('priority', { length: 12, enum: PRIORITIES }).notNull(),
    clock: varchar('clock', { length: 12, enum: TARGET_CLOCKS }).notNull(),
    responseMinutes: int('response_minutes').notNull(),
    completionMinutes: int('completion_minutes').notNull(),
  },
  (table) => [uniqueIndex('target_exception_once').on(table.siteId, table.categoryId, table.priority)],
)
