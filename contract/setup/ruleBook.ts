import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { WorkCalendar } from '#core/kit'
import { ALWAYS_NEEDED, COMPLETENESS_LINES, ESCALATION_ROLES, MOVES_WITH_REASON, ORDER_KINDS, ORDER_STATES, OWN_SUBMISSIONS, TARGET_CLOCKS } from '#core/orders'
import type { NeededReason, OrderMove, OrderState, ReasonRule, RuleBook, RuleSection, TargetClock } from '#core/orders'
import { CONSEQUENCES, HAZARD_LEVELS, LIKELIHOODS, PRIORITIES, SEVERITIES, URGENCIES } from '#core/requests'
import type { Priority } from '#core/requests'

export interface PromiseException {
  id: number
  categoryId: number
  categoryName: string
  priority: Priority
  clock: TargetClock
  responseMinutes: number
  completionMinutes: number
}

export interface Consent {
  payerId: number
  payerName: string
  accountId: number | null
  aboveMinor: number | null
}

/** Everything a site decides about its orders, with what the ids in it are called. */
export interface RuleBookSheet {
  siteId: number
  version: number
  currency: string
  book: RuleBook
  calendar: WorkCalendar
  exceptions: PromiseException[]
  consents: Consent[]
  names: Record<'places' | 'payers' | 'accounts', { id: number; name: string }[]>
}

const bySite = { siteId: field.id().required() }

export const readRuleBook = endpoint<{ siteId: number }, RuleBookSheet>({
  method: 'GET',
  path: '/api/setup/rules/:siteId',
  says: 'The rules of a site: priorities, promises, completeness, agreements, reasons, who is told.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number }, true>(bySite),
})

const list = <T extends string>(values: readonly T[]) => Joi.array().items(field.oneOf(values)).unique()
const when = Joi.object({
  states: list(ORDER_STATES),
  kinds: list(ORDER_KINDS),
  priorities: list(PRIORITIES),
  amountFromMinor: field.minor(),
  placeId: field.id(),
  payerIds: Joi.array().items(field.id()).unique().max(20),
  olderThanDays: Joi.number().integer().min(0).max(3650),
}).required()
const account = Joi.object({ accountId: field.id().required() })

const each = <T extends string>(keys: readonly T[], schema: Joi.Schema) => Joi.object(Object.fromEntries(keys.map((key) => [key, schema.required()])))

const reasons = Joi.array()
  .max(40)
  .items(
    Joi.object({
      move: field.oneOf(MOVES_WITH_REASON).required(),
      when,
      answers: Joi.array().items(field.line(120)).unique().max(20).required(),
    }),
  )

/** What each section has to look like; nothing else gets into the book. */
const SECTIONS: { [Section in RuleSection]: Joi.Schema<RuleBook[Section]> } = {
  matrix: each(CONSEQUENCES, each(URGENCIES, field.oneOf(PRIORITIES))),
  hazards: each(LIKELIHOODS, Joi.array().items(field.oneOf(HAZARD_LEVELS)).length(SEVERITIES.length)),
  completeness: each(
    ORDER_KINDS,
    list(COMPLETENESS_LINES).custom((lines: string[], helpers) =>
      ALWAYS_NEEDED.every((one) => lines.includes(one))
        ? lines
        : helpers.message({ custom: 'Summary, place, priority, payer and estimate are always needed.' }),
    ),
  ),
  reasons,
  ownSubmissions: field.oneOf(OWN_SUBMISSIONS),
  approvals: Joi.array()
    .max(40)
    .items(
      Joi.object({
        when,
        asks: Joi.array()
          .items(Joi.alternatives(account, field.oneOf(['supervisor'])))
          .min(1)
          .max(6)
          .unique()
          .required(),
        inOrder: Joi.boolean().required(),
      }),
    ),
  escalations: Joi.array()
    .max(40)
    .items(
      Joi.object({
        at: field.oneOf(['close', 'past']).required(),
        when,
        tell: Joi.array()
          .items(Joi.alternatives(account, field.oneOf(ESCALATION_ROLES)))
          .min(1)
          .max(8)
          .unique()
          .required(),
      }),
    ),
}

export type SaveRules = { [Section in RuleSection]: { siteId: number; version: number; section: Section; content: RuleBook[Section] } }[RuleSection]

export const saveRules = endpoint<SaveRules, RuleBookSheet>({
  method: 'PATCH',
  path: '/api/setup/rules/:siteId',
  says: 'Change one section of the rules; it is in force at once.',
  may: 'setup.edit',
  // What `content` looks like follows from the section: SECTIONS holds each to the rule book’s type.
  input: Joi.object({
    ...bySite,
    version: Joi.number().integer().min(0).required(),
    section: field.oneOf(Object.keys(SECTIONS)).required(),
    content: Joi.any()
      .required()
      .when('section', { switch: Object.entries(SECTIONS).map(([is, then]) => ({ is, then })) }),
  }),
})

export interface TriedMove extends NeededReason {
  move: OrderMove
  label: string
  /** The sentences of the rules that ask for it. */
  because: string[]
}

export const tryReasonRules = endpoint<
  { siteId: number; number: string; rules: ReasonRule[] },
  { order: { id: number; number: string; summary: string; state: OrderState }; moves: TriedMove[] }
>({
  method: 'POST',
  path: '/api/setup/rules/:siteId/try-reasons',
  says: 'What reason rules would ask for on an order, before they are in force. Changes nothing.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; number: string; rules: ReasonRule[] }, true>({ ...bySite, number: field.line(16).required(), rules: reasons.required() }),
})

const promise = {
  clock: field.oneOf(TARGET_CLOCKS).required(),
  responseMinutes: Joi.number().integer().min(1).max(1_000_000).required(),
  completionMinutes: Joi.number()
    .integer()
    .min(Joi.ref('responseMinutes'))
    .max(1_000_000)
    .required()
    .messages({ 'number.min': 'Finishing is promised no earlier than responding.' }),
}

export const savePromiseException = endpoint<{ siteId: number } & Omit<PromiseException, 'id' | 'categoryName'>, RuleBookSheet>({
  method: 'POST',
  path: '/api/setup/rules/:siteId/exceptions',
  says: 'Promise something else for one category and priority; promises already made stay.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number } & Omit<PromiseException, 'id' | 'categoryName'>, true>({
    ...bySite,
    categoryId: field.id().required(),
    priority: field.oneOf(PRIORITIES).required(),
    ...promise,
  }),
})

export const dropPromiseException = endpoint<{ siteId: number; id: number }, RuleBookSheet>({
  method: 'DELETE',
  path: '/api/setup/rules/:siteId/exceptions/:id',
  says: 'Go back to the usual promise for a category.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; id: number }, true>({ ...bySite, id: field.id().required() }),
})

const clockTime = Joi.string().pattern(/^([01]\d|2[0-3]):[0-5]\d$|^24:00$/)

export const saveCalendar = endpoint<{ siteId: number; version: number; week: WorkCalendar['week']; holidays: string[] }, RuleBookSheet>({
  method: 'PATCH',
  path: '/api/setup/rules/:siteId/calendar',
  says: 'Change working hours and holidays; promises already made stay.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; version: number; week: WorkCalendar['week']; holidays: string[] }, true>({
    ...bySite,
    version: Joi.number().integer().min(0).required(),
    week: Joi.array()
      .length(7)
      .items(
        Joi.array()
          .max(4)
          .items(Joi.object({ from: clockTime.required(), to: clockTime.required() })),
      )
      .required(),
    holidays: Joi.array()
      .items(Joi.string().pattern(/^\d{4}-\d{2}-\d{2}$/))
      .unique()
      .max(400)
      .required(),
  }),
})

export const saveConsent = endpoint<{ siteId: number; payerId: number; accountId: number | null; aboveMinor: number | null }, RuleBookSheet>({
  method: 'PATCH',
  path: '/api/setup/rules/:siteId/consents/:payerId',
  says: 'Say who consents for a payer, and above which amount.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; payerId: number; accountId: number | null; aboveMinor: number | null }, true>({
    ...bySite,
    payerId: field.id().required(),
    accountId: field.id().allow(null).required(),
    aboveMinor: field.minor().allow(null).required(),
  }),
})
