import type { Reason } from '#core/kit'

/** What the Counter may ask for besides place, summary and description, which it always does. */
export const COUNTER_FIELDS = ['category', 'asset', 'photo', 'name', 'email', 'phone', 'wish'] as const
export type CounterField = (typeof COUNTER_FIELDS)[number]
export const COUNTER_FIELD_NAMES: Record<CounterField, string> = {
  category: 'What it is about',
  asset: 'Asset',
  photo: 'Photos and documents',
  name: 'Name',
  email: 'Mail address',
  phone: 'Phone',
  wish: 'Wanted by',
}

export const ASKING = ['not_asked', 'optional', 'required'] as const
export type Asking = (typeof ASKING)[number]
export const ASKING_NAMES: Record<Asking, string> = { not_asked: 'Not asked', optional: 'Optional', required: 'Required' }
export type CounterFields = Record<CounterField, Asking>

/** What a site asks for until somebody sets it otherwise. */
export const USUAL_COUNTER_FIELDS: CounterFields = {
  category: 'optional',
  asset: 'optional',
  photo: 'optional',
  name: 'optional',
  email: 'optional',
  phone: 'optional',
  wish: 'optional',
}

export const counterFieldsOf = (set: Partial<CounterFields> | null | undefined): CounterFields => ({ ...USUAL_COUNTER_FIELDS, ...set })

const NEEDED: Record<CounterField, { field: string; sentence: string }> = {
  category: { field: 'categoryId', sentence: 'Choose what it is about.' },
  asset: { field: 'assetId', sentence: 'Choose which one it is.' },
  photo: { field: 'fileClaims', sentence: 'Add a photo.' },
  name: { field: 'name', sentence: 'Write your name.' },
  email: { field: 'email', sentence: 'Write your mail address.' },
  phone: { field: 'phone', sentence: 'Write a phone number.' },
  wish: { field: 'wish', sentence: 'Say by when you would like it.' },
}

/** What a report still lacks at this site. `has` says which fields were given. */
export function counterReasons(fields: CounterFields, has: Record<CounterField, boolean>): Reason[] {
  return COUNTER_FIELDS.filter((field) => fields[field] === 'required' && !has[field]).map((field) => ({ code: `${field}_missing`, ...NEEDED[field] }))
}

export interface FieldChange {
  field: CounterField
  from: Asking
  to: Asking
}

/** What copying one site's set-up over another's would change there. */
export function fieldChanges(from: CounterFields, to: CounterFields): FieldChange[] {
  return COUNTER_FIELDS.filter((field) => from[field] !== to[field]).map((field) => ({ field, from: from[field], to: to[field] }))
}
