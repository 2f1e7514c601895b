import Joi from 'joi'
import { field } from '#contract/kit'
import { CONSEQUENCES, HAZARD_LEVELS, LIKELIHOODS, PRIORITIES, SEVERITIES, URGENCIES } from '#core/requests'
import type { PriorityRules } from '#core/requests'

const each = <T extends string>(keys: readonly T[], schema: Joi.Schema) => Joi.object(Object.fromEntries(keys.map((key) => [key, schema.required()])))

/** What the rules that make a priority have to look like. */
export const PRIORITY_RULES: { [Section in keyof PriorityRules]: Joi.Schema<PriorityRules[Section]> } = {
  matrix: each(CONSEQUENCES, each(URGENCIES, field.oneOf(PRIORITIES))),
  hazards: each(LIKELIHOODS, Joi.array().items(field.oneOf(HAZARD_LEVELS)).length(SEVERITIES.length)),
}
