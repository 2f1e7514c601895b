import Joi from 'joi'
import { MOST_WAIT } from '#core/dispatch'
import type { AnswerWait, VendorRules } from '#core/dispatch'

const wait = () =>
  Joi.object<AnswerWait, true>({
    remind: Joi.number().integer().min(5).max(MOST_WAIT).required(),
    tell: Joi.number().integer().min(5).max(MOST_WAIT).required(),
  }).required()

/** What the waits for vendors have to look like. */
export const VENDOR_RULES: { vendors: Joi.Schema<VendorRules> } = {
  vendors: Joi.object<VendorRules, true>({ emergency: wait(), other: wait() }),
}
