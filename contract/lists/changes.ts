import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Reason } from '#core/kit'
import { REGISTERS } from '#core/registers'
import type { FieldValue, RegisterName } from '#core/registers'

/** How one record of several fared, and what stood there before. */
export interface ChangedRow {
  id: number
  number: string
  changed: boolean
  version: number
  before: FieldValue
  reasons: Reason[]
}

export interface RecordChanges {
  register: RegisterName
  /** The property of the record, or `retired` with 1 or 0. */
  field: string
  items: { id: number; version: number; value: FieldValue }[]
}

export const changeRecords = endpoint<RecordChanges, { rows: ChangedRow[] }>({
  method: 'POST',
  path: '/api/lists/registers/:register/changes',
  says: 'Change the same field of several records of a register, each to its own value and under its own rules, with a result for each.',
  may: 'desk.read',
  input: Joi.object<RecordChanges, true>({
    register: field.oneOf(REGISTERS).required(),
    field: Joi.string().max(40).required(),
    items: Joi.array()
      .items(
        Joi.object({
          id: field.id().required(),
          version: field.version().required(),
          value: Joi.alternatives(Joi.string().allow('').max(4000), Joi.number()).allow(null).required(),
        }),
      )
      .min(1)
      .max(200)
      .unique('id')
      .required(),
  }),
})
