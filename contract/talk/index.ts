import Joi from 'joi'
import { onJob, sentBefore } from '#contract/field'
import type { JobSheet, OnJob, SentBefore, Talk } from '#contract/field'
import { endpoint, field } from '#contract/kit'
import { AUDIENCES } from '#core/talk'
import type { TalkAudience } from '#core/talk'

interface Saying {
  mark: string
  audience: TalkAudience
  text: string
}
export const words = field.words(2000).min(1).required().messages({ 'any.required': 'Write something first.', 'string.empty': 'Write something first.' })
const saying = { mark: field.mark().required(), audience: field.oneOf(AUDIENCES).required(), text: words }

const ofOrder = { orderId: field.id().required() }
export const readTalk = endpoint<{ orderId: number }, Talk>({
  method: 'GET',
  path: '/api/orders/:orderId/talk',
  says: 'What was said on an order: with our people on it, with vendors, with whoever reported it.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>(ofOrder),
})

interface SayAtDesk extends Saying {
  orderId: number
  /** The vendor’s visit it is to. */
  visitId?: number
}
export const sayOnOrder = endpoint<SayAtDesk, Talk>({
  method: 'POST',
  path: '/api/orders/:orderId/talk',
  says: 'Write to those on an order, to its vendor, or to whoever reported it.',
  may: 'orders.dispatch',
  input: Joi.object<SayAtDesk, true>({ ...ofOrder, ...saying, visitId: field.id() }),
})

export const addTalkPhoto = endpoint<{ orderId: number; mark: string }, Talk>({
  method: 'POST',
  path: '/api/orders/:orderId/talk/:mark/photos',
  says: 'Add a photo to what I wrote.',
  may: 'orders.dispatch',
  upload: true,
  input: Joi.object<{ orderId: number; mark: string }, true>({ ...ofOrder, mark: field.mark().required() }),
})

export const sayOnJob = endpoint<OnJob & Saying, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/talk',
  says: 'Write to the desk from a job, or to whoever reported it.',
  may: 'field.work',
  input: Joi.object<OnJob & Saying, true>({ ...onJob, ...saying }),
})

interface OnSaid extends OnJob {
  mark: string
}
const onSaid = { ...onJob, mark: field.mark().required() }
export const addSaidPhoto = endpoint<OnSaid, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/talk/:mark/photos',
  says: 'Add a photo to what I wrote from a job.',
  may: 'field.work',
  upload: true,
  input: Joi.object<OnSaid, true>(onSaid),
})
export const addSentSaidPhoto = endpoint<OnSaid & SentBefore, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/talk/:mark/sent-photos',
  says: 'Add a photo to what I wrote from a job that was sent in pieces.',
  may: 'field.work',
  input: Joi.object<OnSaid & SentBefore, true>({ ...onSaid, ...sentBefore }),
})
