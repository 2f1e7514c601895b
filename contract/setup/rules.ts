import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { ROLES } from '#core/people'
import type { Grant } from '#core/people'
import type { Priority } from '#core/requests'
import type { TargetClock } from '#core/orders'
import { HOLD_REASONS, TARGET_CLOCKS } from '#core/orders'

/** Somebody whom rules or orders of a site wait for, and who approves nothing there any more. */
export interface Unable {
  siteId: number
  siteCode: string
  accountId: number
  name: string
  /** How many rules of the site ask them, and for how many payers they consent. */
  rules: number
  consents: number
  orders: { id: number; number: string }[]
}

export interface SetupSheet {
  accounts: {
    id: number
    version: number
    name: string
    email: string
    roles: Grant[]
    approvalLimitMinor: number | null
    disabled: boolean
    teamId: number | null
    /** Whether limit and access are this administrator's to change: not where it works at sites they do not administer. */
    whole: boolean
  }[]
  /** The sites this administrator gives roles at; roles for every site only when `everywhere`. */
  sites: { id: number; code: string; name: string }[]
  everywhere: boolean
  /** Those who are asked to agree, and cannot. */
  unable: Unable[]
  teams: { id: number; name: string }[]
  targets: { id: number; siteCode: string; priority: Priority; clock: TargetClock; responseMinutes: number; completionMinutes: number }[]
  numberings: { siteId: number; siteCode: string; series: 'request' | 'order'; prefix: string; next: number }[]
  holds: { reason: string; stopsClock: boolean }[]
}

export const readSetup = endpoint<object, SetupSheet>({
  method: 'GET',
  path: '/api/setup',
  says: 'Accounts, targets, numbering and hold reasons.',
  may: 'setup.edit',
})

export const editAccount = endpoint<
  { id: number; version: number; roles: Grant[]; approvalLimitMinor: number | null; disabled: boolean; teamId?: number | null },
  SetupSheet
>({
  method: 'PATCH',
  path: '/api/setup/accounts/:id',
  says: 'Change roles, each at a site or everywhere, approval limit, or whether somebody may sign in.',
  may: 'setup.edit',
  input: Joi.object<{ id: number; version: number; roles: Grant[]; approvalLimitMinor: number | null; disabled: boolean; teamId?: number | null }, true>({
    id: field.id().required(),
    version: field.version().required(),
    roles: Joi.array()
      .items(Joi.object({ role: field.oneOf(ROLES).required(), siteId: field.id().allow(null).required() }))
      .unique()
      .max(100)
      .required(),
    approvalLimitMinor: field.minor().allow(null).required(),
    disabled: Joi.boolean().required(),
    /** Whom views shared with a team reach. */
    teamId: field.id().allow(null),
  }),
})

export const handOver = endpoint<{ siteId: number; fromId: number; toId: number }, SetupSheet>({
  method: 'POST',
  path: '/api/setup/hand-over',
  says: 'Give what waits for somebody who cannot decide any more to somebody who can: rules, consents and open questions of a site.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; fromId: number; toId: number }, true>({
    siteId: field.id().required(),
    fromId: field.id().required(),
    toId: field.id().required(),
  }),
})

/** Something that happened of which nobody could be told: it was tried, and set aside. */
export interface UntoldEvent {
  id: number
  at: Instant
  kind: string
  actorName: string
  number: string | null
  error: string
  attempts: number
}

export const listUntold = endpoint<object, { rows: UntoldEvent[] }>({
  method: 'GET',
  path: '/api/setup/untold',
  says: 'Events whose mails and notices could not be written, set aside after some tries.',
  may: 'setup.edit',
})

export const tellAgain = endpoint<{ id: number }, { rows: UntoldEvent[] }>({
  method: 'POST',
  path: '/api/setup/untold/:id',
  says: 'Try once more to tell of an event that was set aside.',
  may: 'setup.edit',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export const editTarget = endpoint<{ id: number; clock: TargetClock; responseMinutes: number; completionMinutes: number }, SetupSheet>({
  method: 'PATCH',
  path: '/api/setup/targets/:id',
  says: 'Change what a priority promises; promises already made stay.',
  may: 'setup.edit',
  input: Joi.object<{ id: number; clock: TargetClock; responseMinutes: number; completionMinutes: number }, true>({
    id: field.id().required(),
    clock: field.oneOf(TARGET_CLOCKS).required(),
    responseMinutes: Joi.number().integer().min(1).max(1_000_000).required(),
    completionMinutes: Joi.number()
      .integer()
      .min(Joi.ref('responseMinutes'))
      .max(1_000_000)
      .required()
      .messages({ 'number.min': 'Finishing is promised no earlier than responding.' }),
  }),
})

export const editNumbering = endpoint<{ siteId: number; series: 'request' | 'order'; next: number }, SetupSheet>({
  method: 'PATCH',
  path: '/api/setup/numbering/:siteId/:series',
  says: 'Set the next number; never one already used.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; series: 'request' | 'order'; next: number }, true>({
    siteId: field.id().required(),
    series: field.oneOf(['request', 'order']).required(),
    next: Joi.number().integer().min(1).max(99_999_999).required(),
  }),
})

export const editHold = endpoint<{ reason: string; stopsClock: boolean }, SetupSheet>({
  method: 'PATCH',
  path: '/api/setup/holds/:reason',
  says: 'Say whether a hold reason stops the target clock.',
  may: 'setup.edit',
  input: Joi.object<{ reason: string; stopsClock: boolean }, true>({
    reason: field.oneOf(HOLD_REASONS).required(),
    stopsClock: Joi.boolean().required(),
  }),
})

export interface Health {
  state: 'in order' | 'not in order'
  database: boolean
  migrations: { applied: number; expected: number }
}

export const readHealth = endpoint<object, Health>({ method: 'GET', path: '/api/health', says: 'Whether database and migrations are in order.', may: 'public' })
export const readOpenApi = endpoint<object, object>({ method: 'GET', path: '/api/openapi.json', says: 'This contract as OpenAPI 3.1.', may: 'public' })
