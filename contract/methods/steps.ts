import Joi from 'joi'
import { sentBefore } from '#contract/field'
import type { SentBefore } from '#contract/field'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { OrderState } from '#core/orders'
import type { Priority } from '#core/requests'
import type { OrderStep } from './plan'

/** A step as who does it sees it: with what it waits for, and no more of its order than is needed. */
export interface StepToDo extends OrderStep {
  order: { id: number; number: string; summary: string; state: OrderState; priority: Priority | null; place: string | null }
  /** The step it waits for, while that is open. */
  waitsFor: string | null
}

export const listMySteps = endpoint<{ done?: boolean }, { rows: StepToDo[] }>({
  method: 'GET',
  path: '/api/my-steps',
  says: 'Steps of orders that were given to me: what is to do, or what I did last.',
  may: 'self.read',
  input: Joi.object<{ done?: boolean }, true>({ done: Joi.boolean() }),
})

/** Something done to a step; without signal, with the moment at which it happened. */
interface OnStep {
  id: number
  happenedAt?: Instant
}
const onStep = { id: field.id().required(), happenedAt: field.instant() }

interface DoStep extends OnStep {
  version: number
  value?: string
  note?: string
  /** Left out instead, with a reason in the note. */
  leave?: boolean
}
export const doStep = endpoint<DoStep, StepToDo>({
  method: 'POST',
  path: '/api/steps/:id/do',
  says: 'Say that a step is done, with the value that was found, or that it is left out and why.',
  may: 'self.read',
  input: Joi.object<DoStep, true>({
    ...onStep,
    version: field.version().required(),
    value: field.line(60).allow(''),
    note: field.words(500).allow(''),
    leave: Joi.boolean(),
  }),
})

export const undoStep = endpoint<OnStep & { version: number }, StepToDo>({
  method: 'POST',
  path: '/api/steps/:id/undo',
  says: 'Take back that a step is done.',
  may: 'self.read',
  input: Joi.object<OnStep & { version: number }, true>({ ...onStep, version: field.version().required() }),
})

export const addStepPhoto = endpoint<OnStep, StepToDo>({
  method: 'POST',
  path: '/api/steps/:id/photo',
  says: 'Add the photo a step wants.',
  may: 'self.read',
  upload: true,
  input: Joi.object<OnStep, true>(onStep),
})

export const addSentStepPhoto = endpoint<OnStep & SentBefore, StepToDo>({
  method: 'POST',
  path: '/api/steps/:id/sent-photo',
  says: 'Add the photo a step wants, which was sent in pieces.',
  may: 'self.read',
  input: Joi.object<OnStep & SentBefore, true>({ ...onStep, ...sentBefore }),
})

export const listJobSteps = endpoint<{ visitId: number }, { rows: StepToDo[] }>({
  method: 'GET',
  path: '/api/rounds/:visitId/steps',
  says: 'The steps of one of my jobs.',
  may: 'field.work',
  input: Joi.object<{ visitId: number }, true>({ visitId: field.id().required() }),
})
