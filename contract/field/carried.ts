import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { PHOTO_STAGES } from '#core/field'
import type { PhotoStage } from '#core/field'
import type { Instant } from '#contract/kit'
import type { JobRow, JobSheet } from './jobs'
import { onJob } from './onJob'
import type { OnJob } from './onJob'
import type { FoundPart } from './materials'

/** What a phone carries along, to work without signal. */
export interface Carried {
  rows: JobRow[]
  zone: string
  /** One for each job: another whenever anything on its page may have changed. */
  marks: { visitId: number; mark: string }[]
  /** Who else works in the field at the site: a job can be handed over to them. */
  crew: { id: number; name: string }[]
  /** Parts in the stores of the site. */
  parts: FoundPart[]
  /** Equipment of the site, to be found by its tag. */
  equipment: { id: number; tag: string; name: string }[]
}
export const carryJobs = endpoint<object, Carried>({
  method: 'GET',
  path: '/api/rounds-carried',
  says: 'What my phone carries along: jobs that are open, those of the days ahead and what there is in stock.',
  may: 'field.work',
})

/** A file that was sent in pieces before, by the resumable upload protocol. */
export interface SentBefore {
  upload: string
  /** SHA-256 of the whole in hex: what arrived is compared with it. */
  checksum: string
}
export const sentBefore = {
  upload: field.token().required(),
  checksum: Joi.string()
    .pattern(/^[0-9a-f]{64}$/)
    .required(),
}

export const addSentPhoto = endpoint<OnJob & SentBefore & { stage?: PhotoStage }, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/sent-photos',
  says: 'Add a photo from the job that was sent in pieces.',
  may: 'field.work',
  input: Joi.object<OnJob & SentBefore & { stage?: PhotoStage }, true>({ ...onJob, ...sentBefore, stage: field.oneOf(PHOTO_STAGES) }),
})

/** Whoever was on site, by name, as they signed. */
interface Signed extends OnJob {
  name: string
}
const signed = { ...onJob, name: field.line(80).required().messages({ 'string.empty': 'Write who signs.', 'any.required': 'Write who signs.' }) }

export const addSignature = endpoint<Signed, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/signatures',
  says: 'Keep the signature of who is on site.',
  may: 'field.work',
  upload: true,
  input: Joi.object<Signed, true>(signed),
})

export const addSentSignature = endpoint<Signed & SentBefore, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/sent-signatures',
  says: 'Keep a signature that was sent in pieces.',
  may: 'field.work',
  input: Joi.object<Signed & SentBefore, true>({ ...signed, ...sentBefore }),
})

interface TellUnsent extends OnJob {
  /** What was recorded, in words. */
  what: string
  /** Why it was not taken. */
  why: string
}
export const tellUnsent = endpoint<TellUnsent, { told: Instant }>({
  method: 'POST',
  path: '/api/rounds/:visitId/unsent',
  says: 'Leave out what was recorded on a job and could not be taken: the desk is told of it in words.',
  may: 'field.work',
  input: Joi.object<TellUnsent, true>({ ...onJob, what: field.words(2500).min(1).required(), why: field.words(300).allow('').required() }),
})
