import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { MOST_CHOICES, OWN_KINDS, OWN_SHAPES } from '#core/own'
import type { OwnField, OwnKind, OwnShape } from '#core/own'

/** A field as administrators keep it. */
export interface OwnFieldRow extends OwnField {
  version: number
  retired: boolean
  /** How many records hold something in it. */
  used: number
}

export const listOwnFields = endpoint<object, { rows: OwnFieldRow[] }>({
  method: 'GET',
  path: '/api/own/fields',
  says: 'The fields administrators have added, in the order in which they are shown.',
  may: 'desk.read',
})

export interface NewOwnField {
  kind: OwnKind
  label: string
  shape: OwnShape
  unit?: string
  /** The names of what can be chosen. */
  choices?: string[]
}

const label = () => field.line(60)
const unit = () => field.line(16).allow('', null)

export const addOwnField = endpoint<NewOwnField, { rows: OwnFieldRow[] }>({
  method: 'POST',
  path: '/api/own/fields',
  says: 'Add a field to requests, orders or the records of a register.',
  may: 'setup.edit',
  input: Joi.object<NewOwnField, true>({
    kind: field.oneOf(OWN_KINDS).required(),
    label: label().required(),
    shape: field.oneOf(OWN_SHAPES).required(),
    unit: unit(),
    choices: Joi.array().items(field.line(80)).max(MOST_CHOICES),
  }),
})

export interface OwnFieldEdit {
  id: number
  version: number
  label?: string
  unit?: string
  /** Those that have a key keep what was chosen; those without one are new. */
  choices?: { key?: string; name: string }[]
  /** Taken out of use, or back; what was written in it stays. */
  retired?: boolean
  /** Shown before this one; null for last. */
  before?: number | null
}

export const editOwnField = endpoint<OwnFieldEdit, { rows: OwnFieldRow[] }>({
  method: 'PATCH',
  path: '/api/own/fields/:id',
  says: 'Call a field otherwise, change what can be chosen in it, its place, or take it out of use.',
  may: 'setup.edit',
  input: Joi.object<OwnFieldEdit, true>({
    id: field.id().required(),
    version: field.version().required(),
    label: label(),
    unit: unit(),
    choices: Joi.array()
      .items(Joi.object({ key: Joi.string().max(24), name: field.line(80).required() }))
      .max(MOST_CHOICES),
    retired: Joi.boolean(),
    before: field.id().allow(null),
  }),
})

/** Own fields of one record: what there is, and by each field's name ("own12") what stands in it. */
export interface OwnFrame {
  id: number
  /** Of these values alone. */
  version: number
  kind: OwnKind
  /** Why they cannot be changed now by who asks; null when they can. */
  whyNot: string | null
  fields: OwnField[]
  /** What persons are called, by field. */
  names: Record<string, string>
}
export type OwnSheet = OwnFrame & { [field: string]: unknown }

export interface OfOwn {
  kind: OwnKind
  id: number
}

export const readOwn = endpoint<OfOwn, OwnSheet>({
  method: 'GET',
  path: '/api/own/:kind/:id',
  says: 'What stands in the own fields of a request, an order or a record.',
  may: 'desk.read',
  input: Joi.object<OfOwn, true>({ kind: field.oneOf(OWN_KINDS).required(), id: field.id().required() }),
})

export type OwnEdit = OfOwn & { version: number } & { [field: string]: unknown }

export const editOwn = endpoint<OwnEdit, OwnSheet>({
  method: 'PATCH',
  path: '/api/own/:kind/:id',
  says: 'Change what stands in own fields, each by its name (“own12”).',
  may: 'desk.read',
  input: Joi.object({
    kind: field.oneOf(OWN_KINDS).required(),
    id: field.id().required(),
    version: Joi.number().integer().min(0).required(),
  }).pattern(/^own[1-9]\d{0,6}$/, Joi.alternatives(Joi.number(), Joi.string().allow('').max(1000)).allow(null)),
})
