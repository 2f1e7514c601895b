import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { CHECK_IN_LEAST, CHECK_IN_MOST } from '#core/field'
import type { JobSheet } from './jobs'
import { onJob } from './onJob'
import type { OnJob } from './onJob'

export const checkIn = endpoint<OnJob, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/check-ins',
  says: 'Say that I am all right where I work alone.',
  may: 'field.work',
  input: Joi.object<OnJob, true>(onJob),
})

/** Whether whoever works on an order is alone there, and how they are. */
export interface LoneWork {
  /** How often they say that they are all right; null where nobody asks. */
  everyMinutes: number | null
  watched: { name: string; phone: string | null; checkedAt: Instant; dueAt: Instant; overdue: boolean }[]
}
interface OfOrder {
  orderId: number
}
export const readLoneWork = endpoint<OfOrder, LoneWork>({
  method: 'GET',
  path: '/api/orders/:orderId/lone-work',
  says: 'Whether whoever works on an order works alone and checks in, and when they did last.',
  may: 'desk.read',
  input: Joi.object<OfOrder, true>({ orderId: field.id().required() }),
})

export const setLoneWork = endpoint<OfOrder & { everyMinutes: number | null }, LoneWork>({
  method: 'POST',
  path: '/api/orders/:orderId/lone-work',
  says: 'Have whoever works on an order check in every so many minutes, or not any more.',
  may: 'orders.edit',
  input: Joi.object<OfOrder & { everyMinutes: number | null }, true>({
    orderId: field.id().required(),
    everyMinutes: Joi.number()
      .integer()
      .min(CHECK_IN_LEAST)
      .max(CHECK_IN_MOST)
      .allow(null)
      .required()
      .messages({
        'number.min': `Every ${CHECK_IN_LEAST} minutes is the most often.`,
        'number.max': `Every ${CHECK_IN_MOST} minutes is the least often.`,
      }),
  }),
})
