import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { LIST_KINDS } from '#core/lists'
import type { ListKind } from '#core/lists'

export const SHARINGS = ['nobody', 'team', 'all'] as const
export type Sharing = (typeof SHARINGS)[number]

export interface ViewRow {
  /** "late" for one that ships with the application, "v12" for one somebody saved. */
  key: string
  id: number | null
  kind: ListKind
  name: string
  address: string
  sharedWith: Sharing
  team: string | null
  owner: string | null
  /** Whether the person asking made it, and may change it. */
  mine: boolean
  version: number
}

export interface Views {
  rows: ViewRow[]
  /** The view the lists open with for the person asking. */
  usual: string
  /** The team that views shared with a team reach; nobody’s team, no such sharing. */
  team: { id: number; name: string } | null
}

export const listViews = endpoint<object, Views>({
  method: 'GET',
  path: '/api/views',
  says: 'The views you can open: those that come with the application, your own, and those shared with you.',
  may: 'desk.read',
})

const viewFields = {
  name: field.line(60).required(),
  kind: field.oneOf(LIST_KINDS).required(),
  address: Joi.string().allow('').max(1400).required(),
  sharedWith: field.oneOf(SHARINGS).required(),
}
export interface ViewFields {
  name: string
  kind: ListKind
  address: string
  sharedWith: Sharing
}

export const saveView = endpoint<ViewFields, Views & { key: string }>({
  method: 'POST',
  path: '/api/views',
  says: 'Save a list as a view.',
  may: 'desk.read',
  input: Joi.object<ViewFields, true>(viewFields),
})

export const changeView = endpoint<{ id: number; version: number } & ViewFields, Views>({
  method: 'PATCH',
  path: '/api/views/:id',
  says: 'Change a view of your own.',
  may: 'desk.read',
  input: Joi.object<{ id: number; version: number } & ViewFields, true>({ id: field.id().required(), version: field.version().required(), ...viewFields }),
})

export const dropView = endpoint<{ id: number }, Views>({
  method: 'DELETE',
  path: '/api/views/:id',
  says: 'Drop a view of your own; who had it as their usual one has “Outstanding” again.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export const chooseUsualView = endpoint<{ key: string }, Views>({
  method: 'PATCH',
  path: '/api/views/usual',
  says: 'Choose the view your lists open with.',
  may: 'desk.read',
  input: Joi.object<{ key: string }, true>({ key: Joi.string().max(40).required() }),
})
