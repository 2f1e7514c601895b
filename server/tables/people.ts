import { date, index, int, json, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import type { DayStretch } from '#core/kit'
import { ROLES } from '#core/people'
import { id, instant, inUse, minor, tokenHash } from './columns'
import { payers } from './ledger'
import { devices } from './devices'
import { places, sites } from './places'

export const people = mysqlTable(
  'person',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    name: varchar('name', { length: 120 }).notNull(),
    email: varchar('email', { length: 190 }),
    phone: varchar('phone', { length: 40 }),
    extension: varchar('extension', { length: 12 }),
    title: varchar('title', { length: 120 }),
    department: varchar('department', { length: 120 }),
    placeId: int('place_id').references(() => places.id),
    payerId: int('payer_id').references(() => payers.id),
    searchText: varchar('search_text', { length: 400 }).notNull(),
    ...inUse(),
  },
  (table) => [index('person_name').on(table.name), uniqueIndex('person_email').on(table.email)],
)

export const accounts = mysqlTable('account', {
  id: id(),
  personId: int('person_id')
    .notNull()
    .unique()
    .references(() => people.id),
  email: varchar('email', { length: 190 }).notNull().unique(),
  passwordHash: varchar('password_hash', { length: 255 }).notNull(),
  /** Up to which estimate this person approves; empty for those who do not. */
  approvalLimitMinor: minor('approval_limit_minor'),
  disabledAt: instant('disabled_at'),
  /** Whom views shared with a team reach; technicians have theirs with their shift. */
  teamId: int('team_id').references((): AnyMySqlColumn => teams.id),
  /** What this person's call form starts with. */
  callPreset: json('call_preset').$type<Record<string, string | number | null>>(),
  version: int('version').notNull().default(1),
})

/** Which roles an account has; with a site, only there. */
export const accountRoles = mysqlTable(
  'account_role',
  {
    id: id(),
    accountId: int('account_id')
      .notNull()
      .references(() => accounts.id),
    role: varchar('role', { length: 16, enum: ROLES }).notNull(),
    siteId: int('site_id').references(() => sites.id),
  },
  (table) => [uniqueIndex('account_role_once').on(table.accountId, table.role, table.siteId)],
)

/**
 * Wrong passwords, by address and by where they came from: the next try of that pair waits, and nobody
 * else's does. Kept for addresses nobody has, too.
 */
export const signInTries = mysqlTable(
  'sign_in_try',
  {
    id: id(),
    /** SHA-256 of mail address and source, so that neither stands here. */
    pairHash: varchar('pair_hash', { length: 64 }).notNull(),
    tries: int('tries').notNull(),
    /** When the next one may be looked at. */
    nextAt: instant('next_at').notNull(),
  },
  (table) => [uniqueIndex('sign_in_try_pair').on(table.pairHash), index('sign_in_try_next').on(table.nextAt)],
)

export const sessions = mysqlTable('session', {
  tokenHash: tokenHash('token_hash').primaryKey(),
  accountId: int('account_id')
    .notNull()
    .references(() => accounts.id),
  createdAt: instant('created_at').notNull(),
  expiresAt: instant('expires_at').notNull(),
  /** The device that carries things along in it: ended with it. */
  deviceId: int('device_id').references((): AnyMySqlColumn => devices.id),
})

/** Somebody decides for somebody else while they are away. */
export const deputies = mysqlTable('deputy', {
  id: id(),
  forAccountId: int('for_account_id')
    .notNull()
    .references(() => accounts.id),
  deputyAccountId: int('deputy_account_id')
    .notNull()
    .references(() => accounts.id),
  fromAt: instant('from_at').notNull(),
  untilAt: instant('until_at').notNull(),
})

export const trades = mysqlTable('trade', {
  id: id(),
  code: varchar('code', { length: 24 }).notNull().unique(),
  name: varchar('name', { length: 80 }).notNull(),
})

export const teams = mysqlTable('team', {
  id: id(),
  siteId: int('site_id')
    .notNull()
    .references(() => sites.id),
  name: varchar('name', { length: 80 }).notNull(),
  ...inUse(),
})

export const technicians = mysqlTable('technician', {
  id: id(),
  accountId: int('account_id')
    .notNull()
    .unique()
    .references(() => accounts.id),
  teamId: int('team_id')
    .notNull()
    .references(() => teams.id),
  /** The weekly shift, Monday first. */
  shift: json('shift').$type<DayStretch[][]>().notNull(),
  stepMinutes: int('step_minutes').notNull(),
  callOutMinutes: int('call_out_minutes').notNull(),
  /** Where the day begins and ends. */
  homePlaceId: int('home_place_id').references(() => places.id),
  version: int('version').notNull().default(1),
})

/** What somebody can do and may do, with the paper that says so and its end. */
export const technicianSkills = mysqlTable(
  'technician_skill',
  {
    id: id(),
    technicianId: int('technician_id')
      .notNull()
      .references(() => technicians.id),
    name: varchar('name', { length: 80 }).notNull(),
    certificate: varchar('certificate', { length: 60 }),
    validUntil: date('valid_until', { mode: 'string' }),
  },
  (table) => [uniqueIndex('technician_skill_once').on(table.technicianId, table.name), index('technician_skill_end').on(table.validUntil)],
)

/** A day on which somebody works otherwise than their week says. */
export const shiftExceptions = mysqlTable(
  'shift_exception',
  {
    id: id(),
    technicianId: int('technician_id')
      .notNull()
      .references(() => technicians.id),
    day: date('day', { mode: 'string' }).notNull(),
    stretches: json('stretches').$type<DayStretch[]>().notNull(),
    reason: varchar('reason', { length: 120 }),
  },
  (table) => [uniqueIndex('shift_exception_day').on(table.technicianId, table.day)],
)

export const technicianTrades = mysqlTable(
  'technician_trade',
  {
    technicianId: int('technician_id')
      .notNull()
      .references(() => technicians.id),
    tradeId: int('trade_id')
      .notNull()
      .references(() => trades.id),
  },
  (table) => [primaryKey({ columns: [table.technicianId, table.tradeId] })],
)

export const technicianRates = mysqlTable(
  'technician_rate',
  {
    id: id(),
    technicianId: int('technician_id')
      .notNull()
      .references(() => technicians.id),
    fromAt: instant('from_at').notNull(),
    normalPerHour: minor('normal_per_hour').notNull(),
    overtimePerHour: minor('overtime_per_hour').notNull(),
  },
  (table) => [uniqueIndex('technician_rate_from').on(table.technicianId, table.fromAt)],
)

export const leaves = mysqlTable(
  'leave',
  {
    id: id(),
    technicianId: int('technician_id')
      .notNull()
      .references(() => technicians.id),
    fromAt: instant('from_at').notNull(),
    untilAt: instant('until_at').notNull(),
    reason: varchar('reason', { length: 120 }),
    /** What it is in the calendar it was read from. */
    uid: varchar('uid', { length: 300 }),
  },
  (table) => [index('leave_technician').on(table.technicianId, table.fromAt)],
)
