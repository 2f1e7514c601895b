import { boolean, decimal, index, int, json, mysqlTable, primaryKey, smallint, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { HOLD_REASONS, ORDER_KINDS, ORDER_STATES, OWN_MARKS, TARGET_CLOCKS } from '#core/orders'
import type { RuleSection } from '#core/orders'
import { CONSEQUENCES, LIKELIHOODS, PRIORITIES, SEVERITIES, URGENCIES } from '#core/requests'
import { basisPoints, id, instant, inUse, minor, version } from './columns'
import { payers } from './ledger'
import { accounts, teams, trades } from './people'
import { assets } from './assets'
import { places, sites } from './places'
import { categories } from './requests'
import { vendors } from './vendors'

/** States a site has added under ours. */
export const ownStates = mysqlTable(
  'own_state',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    under: varchar('under', { length: 12, enum: ORDER_STATES }).notNull(),
    name: varchar('name', { length: 40 }).notNull(),
    mark: varchar('mark', { length: 12, enum: OWN_MARKS }).notNull(),
    ...inUse(),
  },
  (table) => [index('own_state_under').on(table.siteId, table.under)],
)

export const orders = mysqlTable(
  'work_order',
  {
    id: id(),
    number: varchar('number', { length: 16 }).notNull(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    state: varchar('state', { length: 12, enum: ORDER_STATES }).notNull(),
    kind: varchar('kind', { length: 12, enum: ORDER_KINDS }).notNull(),
    summary: varchar('summary', { length: 140 }).notNull(),
    description: text('description').notNull(),
    placeId: int('place_id').references(() => places.id),
    assetId: int('asset_id').references(() => assets.id),
    categoryId: int('category_id').references(() => categories.id),
    tradeId: int('trade_id').references(() => trades.id),
    teamId: int('team_id').references(() => teams.id),
    leadId: int('lead_id').references(() => accounts.id),
    supervisorId: int('supervisor_id').references(() => accounts.id),
    leadOrderId: int('lead_order_id').references((): AnyMySqlColumn => orders.id),
    consequence: varchar('consequence', { length: 12, enum: CONSEQUENCES }),
    urgency: varchar('urgency', { length: 12, enum: URGENCIES }),
    priority: varchar('priority', { length: 12, enum: PRIORITIES }),
    /** 1 for Emergency to 4 for Deferred, so that lists sort by it. */
    priorityRank: smallint('priority_rank').notNull().default(3),
    prioritySentence: varchar('priority_sentence', { length: 300 }),
    /** What was said of its hazards: `none` means somebody looked. */
    hazardSeverity: varchar('hazard_severity', { length: 12, enum: [...SEVERITIES, 'none'] }),
    hazardLikelihood: varchar('hazard_likelihood', { length: 12, enum: LIKELIHOODS }),
    estimateMinor: minor('estimate_minor'),
    contactName: varchar('contact_name', { length: 120 }),
    contactPhone: varchar('contact_phone', { length: 40 }),
    access: text('access'),
    /** The time agreed with whoever lets people in: both or neither; and with whom. */
    windowFrom: instant('window_from'),
    windowUntil: instant('window_until'),
    windowWith: varchar('window_with', { length: 120 }),
    noteForWorker: text('note_for_worker'),
    noteForPayer: text('note_for_payer'),
    outsideReference: varchar('outside_reference', { length: 80 }),
    targetClock: varchar('target_clock', { length: 12, enum: TARGET_CLOCKS }).notNull(),
    targetStartAt: instant('target_start_at').notNull(),
    responseDueAt: instant('response_due_at').notNull(),
    closeAt: instant('close_at').notNull(),
    completionDueAt: instant('completion_due_at').notNull(),
    clockStoppedAt: instant('clock_stopped_at'),
    respondedAt: instant('responded_at'),
    finishedAt: instant('finished_at'),
    /** What is planned, once that has grown beyond what was agreed to by more than the site lets pass. */
    outgrownMinor: minor('outgrown_minor'),
    /** How far people have been told of its target: nothing yet, that it is close, that it is past, or nothing more to tell. */
    toldStanding: varchar('told_standing', { length: 8, enum: ['none', 'close', 'past', 'over'] })
      .notNull()
      .default('none'),
    heldFrom: varchar('held_from', { length: 12, enum: ORDER_STATES }),
    /** Who would be sent for: the vendor of the asset, unless somebody chose another. */
    vendorId: int('vendor_id').references(() => vendors.id),
    holdReason: varchar('hold_reason', { length: 12, enum: HOLD_REASONS }),
    /** Under the state it is in; every move leaves it behind. */
    ownStateId: int('own_state_id').references(() => ownStates.id),
    symptom: varchar('symptom', { length: 80 }),
    cause: varchar('cause', { length: 80 }),
    fix: varchar('fix', { length: 80 }),
    outcomeNote: text('outcome_note'),
    createdAt: instant('created_at').notNull(),
    createdBy: int('created_by').references(() => accounts.id),
    submittedBy: int('submitted_by').references(() => accounts.id),
    closedAt: instant('closed_at'),
    discardedAt: instant('discarded_at'),
    archived: boolean('archived').notNull().default(false),
    version: version(),
  },
  (table) => [
    uniqueIndex('order_number').on(table.siteId, table.number),
    index('order_numbered').on(table.number),
    index('order_own_state').on(table.ownStateId, table.completionDueAt, table.id),
    index('order_queue').on(table.state, table.completionDueAt, table.id),
    index('order_priority').on(table.state, table.priorityRank, table.completionDueAt, table.id),
    index('order_place').on(table.placeId, table.createdAt),
    /** Answers by itself what is open where, and how late: badges of the tree. */
    index('order_open').on(
      table.state,
      table.placeId,
      table.assetId,
      table.siteId,
      table.discardedAt,
      table.completionDueAt,
      table.clockStoppedAt,
      table.finishedAt,
    ),
    index('order_open_asset').on(table.assetId, table.state),
    index('order_open_place').on(table.placeId, table.state),
    index('order_asset').on(table.assetId, table.createdAt),
    index('order_lead').on(table.leadOrderId),
    index('order_told').on(table.toldStanding, table.closeAt),
    index('order_finished').on(table.state, table.finishedAt, table.id),
    index('order_over').on(table.state, table.closedAt, table.id),
    index('order_archived').on(table.archived, table.id),
    index('order_team').on(table.teamId, table.state, table.completionDueAt, table.id),
    index('order_led').on(table.leadId, table.state, table.completionDueAt, table.id),
    index('order_estimate').on(table.estimateMinor, table.id),
    index('order_reference').on(table.outsideReference),
    index('order_created').on(table.createdAt, table.id),
  ],
)

/** Who pays which share; the shares of an order that may be charged add to 10 000. */
export const orderShares = mysqlTable(
  'order_share',
  {
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    payerId: int('payer_id')
      .notNull()
      .references(() => payers.id),
    shareBp: basisPoints('share_bp').notNull(),
    position: smallint('position').notNull(),
  },
  (table) => [primaryKey({ columns: [table.orderId, table.payerId] })],
)

export const steps = mysqlTable(
  'step',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    position: smallint('position').notNull(),
    text: varchar('text', { length: 300 }).notNull(),
    assigneeId: int('assignee_id').references(() => accounts.id),
    doneAt: instant('done_at'),
    doneBy: int('done_by').references(() => accounts.id),
    unit: varchar('unit', { length: 16 }),
    measured: decimal('measured', { precision: 14, scale: 4 }),
  },
  (table) => [uniqueIndex('step_position').on(table.orderId, table.position)],
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

/** What a site decides by itself, section by section; those it never touched are the usual ones. */
export const ruleSections = mysqlTable(
  'rule_section',
  {
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    section: varchar('section', { length: 24 }).$type<RuleSection>().notNull(),
    /** Held to the section's schema when it is read, too. */
    content: json('content').$type<unknown>(),
    version: int('version').notNull(),
  },
  (table) => [primaryKey({ columns: [table.siteId, table.section] })],
)

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

/** A decision asked for and given. */
export const approvals = mysqlTable(
  'approval',
  {
    id: id(),
    orderId: int('order_id')
      .notNull()
      .references(() => orders.id),
    /** Those of one position are asked at once, lower positions first. */
    position: smallint('position').notNull().default(1),
    kind: varchar('kind', { length: 8, enum: ['limit', 'person', 'consent'] })
      .notNull()
      .default('limit'),
    /** Whom it names; nobody for the one anybody with the limit can give. */
    accountId: int('account_id').references(() => accounts.id),
    payerId: int('payer_id').references(() => payers.id),
    why: varchar('why', { length: 400 }).notNull().default(''),
    amountMinor: minor('amount_minor').notNull(),
    askedAt: instant('asked_at').notNull(),
    askedBy: int('asked_by').references(() => accounts.id),
    decidedAt: instant('decided_at'),
    decidedBy: int('decided_by').references(() => accounts.id),
    actingForId: int('acting_for_id').references(() => accounts.id),
    verdict: varchar('verdict', { length: 12, enum: ['approved', 'sent_back', 'withdrawn'] }),
    note: text('note'),
  },
  (table) => [index('approval_order').on(table.orderId)],
)
