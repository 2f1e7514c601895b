import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
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

interface DoStep {
  id: number
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
    id: field.id().required(),
    version: field.version().required(),
    value: field.line(60).allow(''),
    note: field.words(500).allow(''),
    leave: Joi.boolean(),
  }),
})

export const undoStep = endpoint<{ id: number; version: number }, StepToDo>({
  method: 'POST',
  path: '/api/steps/:id/undo',
  says: 'Take back that a step is done.',
  may: 'self.read',
  input: Joi.object<{ id: number; version: number }, true>({ id: field.id().required(), version: field.version().required() }),
})

export const addStepPhoto = endpoint<{ id: number }, StepToDo>({
  method: 'POST',
  path: '/api/steps/:id/photo',
  says: 'Add the photo a step wants.',
  may: 'self.read',
  upload: true,
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export const listJobSteps = endpoint<{ visitId: number }, { rows: StepToDo[] }>({
  method: 'GET',
  path: '/api/rounds/:visitId/steps',
  says: 'The steps of one of my jobs.',
  may: 'field.work',
  input: Joi.object<{ visitId: number }, true>({ visitId: field.id().required() }),
})
