import Joi from 'joi'
import { field } from '#contract/kit'
import { ALWAYS_NEEDED, COMPLETENESS_LINES, ESCALATION_ROLES, MOVES_WITH_REASON, ORDER_KINDS, ORDER_STATES, OWN_SUBMISSIONS } from '#core/orders'
import type { LifecycleRules } from '#core/orders'
import { PRIORITIES } from '#core/requests'

const list = <T extends string>(values: readonly T[]) => Joi.array().items(field.oneOf(values)).unique()
const when = Joi.object({
  states: list(ORDER_STATES),
  kinds: list(ORDER_KINDS),
  priorities: list(PRIORITIES),
  amountFromMinor: field.minor(),
  placeId: field.id(),
  payerIds: Joi.array().items(field.id()).unique().max(20),
  olderThanDays: Joi.number().integer().min(0).max(3650),
  own: Joi.object({
    fieldId: field.id().required(),
    filled: Joi.boolean(),
    oneOf: Joi.array().items(field.line(400)).unique().min(1).max(20),
    from: Joi.number().min(-1e12).max(1e12),
    to: Joi.number().min(-1e12).max(1e12),
  }),
}).required()
const account = Joi.object({ accountId: field.id().required() })
const needed = list(COMPLETENESS_LINES)
  .required()
  .custom((lines: string[], helpers) =>
    ALWAYS_NEEDED.every((one) => lines.includes(one)) ? lines : helpers.message({ custom: 'Summary, place, priority, payer and estimate are always needed.' }),
  )

/** What the rules of an order's lifecycle have to look like. */
export const LIFECYCLE_RULES = {
  completeness: Joi.object(Object.fromEntries(ORDER_KINDS.map((kind) => [kind, needed]))),
  reasons: Joi.array()
    .max(40)
    .items(
      Joi.object({
        move: field.oneOf(MOVES_WITH_REASON).required(),
        when,
        answers: Joi.array().items(field.line(120)).unique().max(20).required(),
      }),
    ),
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
} satisfies { [Section in keyof LifecycleRules]: Joi.Schema<LifecycleRules[Section]> }
