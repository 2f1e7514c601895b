import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Endpoint } from '#contract/kit'
import type { Permission } from '#core/people'
import { ONE_OF } from '#core/registers'
import type { AnyFieldTable, FieldTable, FieldValue, RecordState, RegisterField, RegisterName } from '#core/registers'

/** What stands on every Portrait, whatever it is of. */
export interface RecordFrame {
  id: number
  version: number
  register: RegisterName
  /** Null for what serves every site. */
  site: { id: number; code: string; name: string; currency: string } | null
  state: RecordState
  /** What it is called by: its code, tag or name. */
  code: string | null
  heading: string
  /** Whether who asks may change it. */
  mayEdit: boolean
  /** What the ids in its fields are called. */
  names: Record<string, string>
  work: RecordWork
}

/** Work on it that is not over. */
export interface RecordWork {
  openOrders: number
  lateOrders: number
  openRequests: number
}

/** A record as its Portrait shows it. */
export type RecordSheet<Fields> = RecordFrame & Fields

export interface ById {
  id: number
}
export interface ByVersion {
  id: number
  version: number
}
export const byId = { id: field.id().required() }
export const byVersion = { ...byId, version: field.version().required() }

export type EditInput<Fields> = ByVersion & Partial<Fields>
/** A new record: what is needed, whatever else is known, and its site where it is of one. */
export type AddInput<Fields, Needed extends keyof Fields> = { siteId?: number } & Pick<Fields, Needed> & Partial<Fields>

const path = (register: RegisterName) => `/api/registers/${register}`

export const readOne = <Fields>(register: RegisterName): Endpoint<ById, RecordSheet<Fields>> =>
  endpoint<ById, RecordSheet<Fields>>({
    method: 'GET',
    path: `${path(register)}/:id`,
    says: `What is known of ${one(register)}.`,
    may: 'desk.read',
    input: Joi.object<ById, true>(byId),
  })

export const addOne = <Fields, Needed extends keyof Fields>(
  register: RegisterName,
  may: Permission,
  table: FieldTable<Fields>,
): Endpoint<AddInput<Fields, Needed>, RecordSheet<Fields>> =>
  endpoint<AddInput<Fields, Needed>, RecordSheet<Fields>>({
    method: 'POST',
    path: path(register),
    says: `Enter ${one(register)}.`,
    may,
    input: Joi.object({ siteId: field.id(), ...schemasOf(table, true) }),
  })

export const editOne = <Fields>(register: RegisterName, may: Permission, table: FieldTable<Fields>): Endpoint<EditInput<Fields>, RecordSheet<Fields>> =>
  endpoint<EditInput<Fields>, RecordSheet<Fields>>({
    method: 'PATCH',
    path: `${path(register)}/:id`,
    says: `Change ${one(register)}.`,
    may,
    input: Joi.object({ ...byVersion, ...schemasOf(table, false) }),
  })

export const retireOne = <Fields>(register: RegisterName, may: Permission): Endpoint<RetireInput, RecordSheet<Fields>> =>
  endpoint<RetireInput, RecordSheet<Fields>>({
    method: 'POST',
    path: `${path(register)}/:id/retire`,
    says: `Retire ${one(register)}: it is not chosen any more, and its history stays.`,
    may,
    input: Joi.object<RetireInput, true>({ ...byVersion, despiteOpen: Joi.boolean() }),
  })

export interface RetireInput extends ByVersion {
  /** Though something is still open on it. */
  despiteOpen?: boolean
}

export const restoreOne = <Fields>(register: RegisterName, may: Permission): Endpoint<ByVersion, RecordSheet<Fields>> =>
  endpoint<ByVersion, RecordSheet<Fields>>({
    method: 'POST',
    path: `${path(register)}/:id/restore`,
    says: `Take ${one(register)} into use again.`,
    may,
    input: Joi.object<ByVersion, true>(byVersion),
  })

const one = (register: RegisterName) => `${ONE_OF[register].article} ${ONE_OF[register].name}`

/** The schema of each field; `fresh` for a record that is being made, in which what is needed has to be there. */
function schemasOf(table: object, fresh: boolean): Record<string, Joi.Schema> {
  return Object.fromEntries(
    Object.entries(table as AnyFieldTable).map(([name, one]) => {
      const schema = schemaOf(one)
      return [name, one.needed ? (fresh ? schema.required() : schema) : schema.allow(null, '')]
    }),
  )
}

function schemaOf(one: RegisterField): Joi.Schema<FieldValue> {
  if (one.kind === 'line') return field.line(one.most)
  if (one.kind === 'mail') return field.email()
  if (one.kind === 'text') return field.words(one.most)
  if (one.kind === 'money') return field.minor()
  if (one.kind === 'day') return field.day()
  if (one.kind === 'choice') return field.oneOf(Object.keys(one.choices))
  if (one.kind === 'named') return field.id()
  if (one.kind === 'count') return Joi.number().integer().min(0).max(one.most)
  return Joi.number().integer().min(0).max(10_000)
}
