import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { onJob } from './onJob'
import type { OnJob } from './onJob'
import type { JobSheet } from './jobs'
import type { FoundPart } from './materials'

export const findParts = endpoint<{ q?: string }, { rows: FoundPart[] }>({
  method: 'GET',
  path: '/api/parts',
  says: 'Find a part by code or name, with where it lies.',
  may: 'self.read',
  input: Joi.object<{ q?: string }, true>({ q: field.search() }),
})

/** So much of a part. */
interface OfPart extends OnJob {
  partId: number
  quantity: string
}
interface InStore extends OfPart {
  storeId?: number
}
const ofPart = {
  ...onJob,
  partId: field.id().required(),
  quantity: field.quantity().required().messages({ 'string.pattern.base': 'Write a quantity above zero, with at most three decimals.' }),
}

export const usePart = endpoint<InStore, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/parts',
  says: 'Use a part out of a store: the one that is named, else where it is kept for the job, my van, or where most of it is.',
  may: 'field.work',
  input: Joi.object<InStore, true>({ ...ofPart, storeId: field.id() }),
})

export const bringPartBack = endpoint<InStore, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/parts-back',
  says: 'Bring back a part the job took: into the store that is named, else into my van, or where it came from.',
  may: 'field.work',
  input: Joi.object<InStore, true>({ ...ofPart, storeId: field.id() }),
})

export const askForPart = endpoint<OfPart, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/parts-asked',
  says: 'Ask for a part that is out of stock: it is planned for the job and asked for to be bought.',
  may: 'field.work',
  input: Joi.object<OfPart, true>(ofPart),
})

export const takeEquipment = endpoint<OnJob & { equipmentId: number }, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/equipment',
  says: 'Take equipment for a job: what is booked for it, or what nobody has booked meanwhile.',
  may: 'field.work',
  input: Joi.object<OnJob & { equipmentId: number }, true>({ ...onJob, equipmentId: field.id().required() }),
})

export const bringEquipmentBack = endpoint<OnJob & { equipmentId: number; note?: string }, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/equipment-back',
  says: 'Give equipment back, with what is to be said of it.',
  may: 'field.work',
  input: Joi.object<OnJob & { equipmentId: number; note?: string }, true>({
    ...onJob,
    equipmentId: field.id().required(),
    note: field.line(300).allow(''),
  }),
})
