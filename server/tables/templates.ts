import { index, int, mysqlTable, primaryKey, smallint, text, varchar } from 'drizzle-orm/mysql-core'
import { ORDER_KINDS } from '#core/orders'
import { PRIORITIES } from '#core/requests'
import { PAYER_RULES } from '#core/templates'
import { id, instant, inUse, minor } from './columns'
import { payers } from './ledger'
import { methods } from './methods'
import { orders } from './orders'
import { accounts, teams, trades } from './people'
import { sites } from './places'
import { categories } from './requests'

/** What many orders are made from at once; their team and people are of one site. */
export const orderTemplates = mysqlTable('order_template', {
  id: id(),
  siteId: int('site_id')
    .notNull()
    .references(() => sites.id),
  name: varchar('name', { length: 120 }).notNull(),
  kind: varchar('kind', { length: 12, enum: ORDER_KINDS }).notNull(),
  summary: varchar('summary', { length: 140 }).notNull(),
  description: text('description').notNull(),
  priority: varchar('priority', { length: 12, enum: PRIORITIES }).notNull(),
  categoryId: int('category_id').references(() => categories.id),
  tradeId: int('trade_id').references(() => trades.id),
  teamId: int('team_id').references(() => teams.id),
  leadId: int('lead_id').references(() => accounts.id),
  supervisorId: int('supervisor_id').references(() => accounts.id),
  methodId: int('method_id').references(() => methods.id),
  payerRule: varchar('payer_rule', { length: 8, enum: PAYER_RULES }).notNull(),
  payerId: int('payer_id').references(() => payers.id),
  estimateMinor: minor('estimate_minor'),
  dueDays: smallint('due_days'),
  ...inUse(),
})

/** Orders that were made in one act, and can be taken back in one. */
export const orderBatches = mysqlTable(
  'order_batch',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    templateId: int('template_id')
      .notNull()
      .references(() => orderTemplates.id),
    leadOrderId: int('lead_order_id').references(() => orders.id),
    at: instant('at').notNull(),
    by: int('by')
      .notNull()
      .references(() => accounts.id),
    takenBackAt: instant('taken_back_at'),
  },
  (table) => [index('order_batch_site').on(table.siteId, table.id)],
)

export const batchOrders = mysqlTable(
  'batch_order',
  {
    batchId: int('batch_id')
      .notNull()
      .references(() => orderBatches.id),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
  },
  (table) => [primaryKey({ columns: [table.batchId, table.orderId] }), index('batch_order_order').on(table.orderId)],
)
