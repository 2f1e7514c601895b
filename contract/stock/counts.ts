import Joi from 'joi'
import { endpoint, field } from '#contract/kit'

/** A part of a store as it is counted. */
export interface CountLine {
  partId: number
  code: string
  name: string
  unit: string
  /** What should be there: decimals with at most three places. */
  onHand: string
}

const ofStore = { storeId: field.id().required() }
export const readCountSheet = endpoint<{ storeId: number }, { store: string; lines: CountLine[]; mayEnter: boolean }>({
  method: 'GET',
  path: '/api/stock/count/:storeId',
  says: 'What should lie in a store, part by part, to count it.',
  may: 'desk.read',
  input: Joi.object<{ storeId: number }, true>(ofStore),
})

export const printCountSheet = endpoint<{ storeId: number }, Blob>({
  method: 'GET',
  path: '/api/stock/count/:storeId/pdf',
  says: 'The same on paper (PDF), with room for what is found.',
  may: 'desk.read',
  answers: 'file',
  input: Joi.object<{ storeId: number }, true>(ofStore),
})

interface Count {
  storeId: number
  reason: string
  /** What was found, and what should have been there when the sheet was read. */
  lines: { partId: number; found: string; expected: string }[]
}
export interface CountResult {
  partId: number
  /** Corrected, as it should be, or not taken. */
  standing: 'corrected' | 'same' | 'moved'
  sentence: string
}

const amount = () => Joi.alternatives(Joi.string().valid('0'), field.quantity()).required() as unknown as Joi.StringSchema
export const enterCount = endpoint<Count, { rows: CountResult[] }>({
  method: 'POST',
  path: '/api/stock/count/:storeId',
  says: 'Enter a count. What was moved since the sheet was read is not corrected, and says so; the rest is.',
  may: 'registers.edit',
  input: Joi.object<Count, true>({
    ...ofStore,
    reason: field.line(200).required(),
    lines: Joi.array()
      .min(1)
      .max(2_000)
      .unique('partId')
      .items(Joi.object({ partId: field.id().required(), found: amount(), expected: amount() }))
      .required(),
  }),
})
