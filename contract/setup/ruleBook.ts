import Joi from 'joi'
import { WRITINGS } from '#core/kit'
import type { SiteWriting } from '#core/kit'
import { endpoint, field } from '#contract/kit'
import { DAY_PLAN_RULES } from '#contract/dayplans'
import { VENDOR_RULES } from '#contract/dispatch'
import { LIFECYCLE_RULES, PROMISE } from '#contract/orders'
import { PRIORITY_RULES } from '#contract/requests'
import type { WorkCalendar } from '#core/kit'
import { COSTINGS, MOST_TOLERANCE, USUAL_PLANNING } from '#core/orders'
import type { NeededReason, OrderMove, OrderState, PlanningRules, ReasonRule, RuleBook, RuleSection, TargetClock } from '#core/orders'
import type { OwnField } from '#core/own'
import { PRIORITIES } from '#core/requests'
import type { Priority } from '#core/requests'
import { MOST_LEAD_DAYS, SERVICE_LEVELS } from '#core/stock'
import type { BuyingRules } from '#core/stock'

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
  /** Each section has its own: two people change different ones without meeting. */
  versions: Record<RuleSection, number>
  /** Sections whose kept rules cannot be read; the usual ones are in force until somebody keeps others. */
  unreadable: RuleSection[]
  currency: string
  book: RuleBook
  calendar: WorkCalendar
  calendarVersion: number
  exceptions: PromiseException[]
  consents: Consent[]
  names: Record<'places' | 'payers' | 'accounts', { id: number; name: string }[]>
  /** The fields orders have here, which a rule may ask for. */
  own: OwnField[]
}

const bySite = { siteId: field.id().required() }

export const readRuleBook = endpoint<{ siteId: number }, RuleBookSheet>({
  method: 'GET',
  path: '/api/setup/rules/:siteId',
  says: 'The rules of a site: priorities, promises, completeness, agreements, reasons, who is told.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number }, true>(bySite),
})

const WRITING_RULES = Joi.object<SiteWriting, true>({
  locale: field.oneOf(WRITINGS).required(),
  clock: Joi.number().valid(24, 12).required(),
  weekFrom: Joi.number().valid(1, 6, 7).required(),
})

const PLANNING = Joi.object<PlanningRules, true>({
  costing: field.oneOf(COSTINGS).required(),
  tolerancePercent: Joi.number().integer().min(0).max(MOST_TOLERANCE).required(),
  // Rules that were kept before there was this one say nothing of it.
  onSpotMinor: field.minor().min(0).allow(null).default(USUAL_PLANNING.onSpotMinor),
})
const BUYING = Joi.object<BuyingRules, true>({
  orderCostMinor: field.minor().required(),
  holdingPercent: Joi.number().min(0).max(200).precision(1).required(),
  serviceLevel: Joi.number()
    .valid(...SERVICE_LEVELS)
    .required(),
  leadDays: Joi.number().integer().min(0).max(MOST_LEAD_DAYS).required(),
})

/** What each section has to look like, brought by the room whose rules they are; nothing else gets into the book, or is read out of it. */
export const RULE_SECTIONS: { [Section in RuleSection]: Joi.Schema<RuleBook[Section]> } = {
  ...PRIORITY_RULES,
  ...LIFECYCLE_RULES,
  writing: WRITING_RULES,
  planning: PLANNING,
  buying: BUYING,
  ...DAY_PLAN_RULES,
  ...VENDOR_RULES,
}

export type SaveRules = { [Section in RuleSection]: { siteId: number; version: number; section: Section; content: RuleBook[Section] } }[RuleSection]

export const saveRules = endpoint<SaveRules, RuleBookSheet>({
  method: 'PATCH',
  path: '/api/setup/rules/:siteId',
  says: 'Change one section of the rules; it is in force at once.',
  may: 'setup.edit',
  // What `content` looks like follows from the section: RULE_SECTIONS holds each to the rule book’s type.
  input: Joi.object({
    ...bySite,
    version: Joi.number().integer().min(0).required(),
    section: field.oneOf(Object.keys(RULE_SECTIONS)).required(),
    content: Joi.any()
      .required()
      .when('section', { switch: Object.entries(RULE_SECTIONS).map(([is, then]) => ({ is, then })) }),
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
  input: Joi.object<{ siteId: number; number: string; rules: ReasonRule[] }, true>({
    ...bySite,
    number: field.line(16).required(),
    rules: LIFECYCLE_RULES.reasons.required(),
  }),
})

export const savePromiseException = endpoint<{ siteId: number } & Omit<PromiseException, 'id' | 'categoryName'>, RuleBookSheet>({
  method: 'POST',
  path: '/api/setup/rules/:siteId/exceptions',
  says: 'Promise something else for one category and priority; promises already made stay.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number } & Omit<PromiseException, 'id' | 'categoryName'>, true>({
    ...bySite,
    categoryId: field.id().required(),
    priority: field.oneOf(PRIORITIES).required(),
    ...PROMISE,
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
