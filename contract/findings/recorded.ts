import Joi from 'joi'
import { onJob, sentBefore } from '#contract/field'
import type { FindingPin, JobSheet, OnJob, SentBefore } from '#contract/field'
import { endpoint, field } from '#contract/kit'
import { FINDING_SEVERITIES } from '#core/findings'
import type { FindingSeverity } from '#core/findings'
import { FARTHEST } from '#core/floorplans'
import type { Point, Shape } from '#core/floorplans'

/** A finding on one of my jobs, by what it was called when it was recorded. */
export interface OnFinding extends OnJob {
  mark: string
}
const onFinding = {
  ...onJob,
  mark: field.mark().required(),
}

export interface NewFinding {
  text: string
  severity: FindingSeverity
  /** Put right there and then: nothing is to follow. */
  fixedNow: boolean
  /** Where, if not where the job is. */
  placeId?: number
  assetId?: number
  pin?: FindingPin
  /** The step whose value or answer it is. */
  stepId?: number
}
const metres = () => Joi.number().min(-FARTHEST).max(FARTHEST).required()
export const findingBody = {
  text: field.words(2000).min(1).required().messages({ 'any.required': 'Say what is wrong.', 'string.empty': 'Say what is wrong.' }),
  severity: field.oneOf(FINDING_SEVERITIES).required(),
  fixedNow: Joi.boolean().required(),
  placeId: field.id(),
  assetId: field.id(),
  pin: Joi.object<FindingPin, true>({ planId: field.id().required(), at: Joi.array<Point>().ordered(metres(), metres()).required() as never }),
  stepId: field.id(),
}

export const addFinding = endpoint<OnFinding & NewFinding, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/findings',
  says: 'Record something wrong that was found on a job: what, where, how bad, fixed at once or not. `mark` names it from then on.',
  may: 'field.work',
  input: Joi.object<OnFinding & NewFinding, true>({ ...onFinding, ...findingBody }),
})

export const addFindingPhoto = endpoint<OnFinding, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/findings/:mark/photos',
  says: 'Add a photo of what was found.',
  may: 'field.work',
  upload: true,
  input: Joi.object<OnFinding, true>(onFinding),
})

export const addSentFindingPhoto = endpoint<OnFinding & SentBefore, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/findings/:mark/sent-photos',
  says: 'Add a photo of what was found that was sent in pieces.',
  may: 'field.work',
  input: Joi.object<OnFinding & SentBefore, true>({ ...onFinding, ...sentBefore }),
})

export const takeBackFinding = endpoint<OnFinding, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/findings/:mark/take-back',
  says: 'Take back a finding of mine that the desk has done nothing with yet.',
  may: 'field.work',
  input: Joi.object<OnFinding, true>(onFinding),
})

/** A floor as whoever walks through it needs it: what is there, and where it is drawn. No work, no money. */
export interface FloorAround {
  id: number
  code: string
  name: string
  spaces: { id: number; code: string; name: string; shape: Shape | null }[]
  assets: { id: number; tag: string; name: string; placeId: number; at: Point | null }[]
}
export const readSurroundings = endpoint<{ visitId: number }, { floors: FloorAround[] }>({
  method: 'GET',
  path: '/api/rounds/:visitId/around',
  says: 'The building one of my jobs is in: its floors with their spaces and assets, as they are drawn.',
  may: 'field.work',
  input: Joi.object<{ visitId: number }, true>({ visitId: field.id().required() }),
})
