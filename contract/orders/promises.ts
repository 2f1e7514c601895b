import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { HOLD_REASONS, TARGET_CLOCKS } from '#core/orders'
import type { HoldReason, TargetClock } from '#core/orders'
import type { Priority } from '#core/requests'

/** What priorities promise at your sites, and which holds stop the clock of a promise. */
export interface PromisesSheet {
  targets: { id: number; siteCode: string; priority: Priority; clock: TargetClock; responseMinutes: number; completionMinutes: number }[]
  holds: { reason: HoldReason; stopsClock: boolean }[]
  /** Holds are for every site: whether this administrator may change them. */
  everywhere: boolean
}

export const readPromises = endpoint<object, PromisesSheet>({
  method: 'GET',
  path: '/api/setup/promises',
  says: 'What each priority promises at your sites, and which holds stop the target clock.',
  may: 'setup.edit',
})

/** What a promise has to look like. */
export const PROMISE = {
  clock: field.oneOf(TARGET_CLOCKS).required(),
  responseMinutes: Joi.number().integer().min(1).max(1_000_000).required(),
  completionMinutes: Joi.number()
    .integer()
    .min(Joi.ref('responseMinutes'))
    .max(1_000_000)
    .required()
    .messages({ 'number.min': 'Finishing is promised no earlier than responding.' }),
}

export const editTarget = endpoint<{ id: number; clock: TargetClock; responseMinutes: number; completionMinutes: number }, PromisesSheet>({
  method: 'PATCH',
  path: '/api/setup/targets/:id',
  says: 'Change what a priority promises; promises already made stay.',
  may: 'setup.edit',
  input: Joi.object<{ id: number; clock: TargetClock; responseMinutes: number; completionMinutes: number }, true>({
    id: field.id().required(),
    ...PROMISE,
  }),
})

export const editHold = endpoint<{ reason: string; stopsClock: boolean }, PromisesSheet>({
  method: 'PATCH',
  path: '/api/setup/holds/:reason',
  says: 'Say whether a hold reason stops the target clock.',
  may: 'setup.edit',
  input: Joi.object<{ reason: string; stopsClock: boolean }, true>({
    reason: field.oneOf(HOLD_REASONS).required(),
    stopsClock: Joi.boolean().required(),
  }),
})
