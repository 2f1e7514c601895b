import Joi from 'joi'
import { onJob } from '#contract/field'
import type { JobSheet, OnJob } from '#contract/field'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { READING_ANSWERS } from '#core/meters'
import type { ReadingAnswer } from '#core/meters'

/** What a counter may show: nought or more, to the thousandth. */
const shown = () =>
  Joi.string()
    .trim()
    .pattern(/^\d{1,10}(\.\d{1,3})?$/)
    .messages({
      'string.pattern.base': 'Write what it shows: digits, with at most three decimals.',
      'string.empty': 'Write what it shows.',
      'any.required': 'Write what it shows.',
    })

export interface ReadingRow {
  id: number
  value: string
  at: Instant
  anew: boolean
  who: string
  order: { id: number; number: string } | null
  /** Why it does not count. */
  struck: { by: string; at: Instant; reason: string } | null
}
export interface MeterRow {
  id: number
  name: string
  unit: string
  rollsAt: string | null
  /** How much it runs a day, by its last readings; null with too few of them. */
  usualPerDay: number | null
  /** Since its first reading, through every new counter. */
  ran: string
  /** The newest first. */
  readings: ReadingRow[]
}
interface OfAsset {
  assetId: number
}
export const readMeters = endpoint<OfAsset, { rows: MeterRow[]; mayEdit: boolean }>({
  method: 'GET',
  path: '/api/assets/:assetId/meters',
  says: 'The meters of an asset, with what they showed.',
  may: 'desk.read',
  input: Joi.object<OfAsset, true>({ assetId: field.id().required() }),
})

interface NewMeter extends OfAsset {
  name: string
  unit: string
  rollsAt?: string
}
export const addMeter = endpoint<NewMeter, { rows: MeterRow[]; mayEdit: boolean }>({
  method: 'POST',
  path: '/api/assets/:assetId/meters',
  says: 'Give an asset a meter.',
  may: 'registers.edit',
  input: Joi.object<NewMeter, true>({
    assetId: field.id().required(),
    name: field.line(60).required().messages({ 'string.empty': 'Say what it counts.', 'any.required': 'Say what it counts.' }),
    unit: field.line(16).required().messages({ 'string.empty': 'Say in what it counts: h, km, m3.', 'any.required': 'Say in what it counts: h, km, m3.' }),
    rollsAt: shown(),
  }),
})

interface OfMeter {
  id: number
}
export const retireMeter = endpoint<OfMeter, { rows: MeterRow[]; mayEdit: boolean }>({
  method: 'POST',
  path: '/api/meters/:id/retire',
  says: 'Take a meter off its asset; what it showed stays.',
  may: 'registers.edit',
  input: Joi.object<OfMeter, true>({ id: field.id().required() }),
})

interface NewReading {
  value: string
  /** What is said of a reading that is not like the others. */
  answer?: ReadingAnswer
}
const readingBody = { value: shown().required(), answer: field.oneOf(READING_ANSWERS) }

export const takeReading = endpoint<OfMeter & NewReading & { at?: Instant }, { rows: MeterRow[]; mayEdit: boolean }>({
  method: 'POST',
  path: '/api/meters/:id/readings',
  says: 'Write down what a meter showed.',
  may: 'orders.edit',
  input: Joi.object<OfMeter & NewReading & { at?: Instant }, true>({ id: field.id().required(), ...readingBody, at: field.instant() }),
})

export const strikeReading = endpoint<OfMeter & { reason: string }, { rows: MeterRow[]; mayEdit: boolean }>({
  method: 'POST',
  path: '/api/readings/:id/strike',
  says: 'Strike out a reading that was wrong, with why; it stays to be seen.',
  may: 'orders.edit',
  input: Joi.object<OfMeter & { reason: string }, true>({
    id: field.id().required(),
    reason: field.line(200).required().messages({ 'string.empty': 'Say why.', 'any.required': 'Say why.' }),
  }),
})

/** On a job it is said which of its meters it is. */
export interface JobReading extends NewReading {
  meterId: number
}
export const jobReadingBody = { meterId: field.id().required(), ...readingBody }

export const addReading = endpoint<OnJob & JobReading, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/readings',
  says: 'Write down what a meter of the asset of my job shows.',
  may: 'field.work',
  input: Joi.object<OnJob & JobReading, true>({ ...onJob, ...jobReadingBody }),
})
