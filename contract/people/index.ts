import Joi from 'joi'
import type { SiteWriting } from '#core/kit'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { OwnState } from '#core/orders'
import type { Role } from '#core/people'
import { ENTERED_CHANNELS } from '#core/requests'
import type { EnteredChannel } from '#core/requests'
export * from './accounts'

export * from './away'
export * from './demo'

/** What somebody's call form starts with. */
export interface CallPreset {
  channel?: EnteredChannel
  placeId?: number | null
  placeName?: string
  categoryId?: number | null
  description?: string
}

export interface Self {
  accountId: number
  name: string
  email: string
  roles: Role[]
  approvalLimitMinor: number | null
  technicianId: number | null
  site: { id: number; code: string; name: string; zone: string; currency: string } & SiteWriting
  callPreset: CallPreset
  /** The clock the server goes by. */
  now: Instant
}

export const signIn = endpoint<{ email: string; password: string }, Self>({
  method: 'POST',
  path: '/api/session',
  says: 'Sign in with mail address and password.',
  may: 'public',
  input: Joi.object<{ email: string; password: string }, true>({ email: field.email().required(), password: Joi.string().min(1).max(200).required() }),
})

export const signOut = endpoint<object, { signedOut: true }>({ method: 'DELETE', path: '/api/session', says: 'Sign out.', may: 'self.read' })

export const readSelf = endpoint<object, Self>({ method: 'GET', path: '/api/session', says: 'Who is signed in.', may: 'self.read' })

export const keepCallPreset = endpoint<CallPreset, Self>({
  method: 'PATCH',
  path: '/api/session/call-preset',
  says: 'Keep what your call form starts with.',
  may: 'requests.triage',
  input: Joi.object<CallPreset, true>({
    channel: field.oneOf(ENTERED_CHANNELS),
    placeId: field.id().allow(null),
    placeName: field.words(160).allow(''),
    categoryId: field.id().allow(null),
    description: field.words(500).allow(''),
  }),
})

export interface Notice {
  id: number
  sentence: string
  orderId: number | null
  requestId: number | null
  /** The page it leads to, where that is no request or order. */
  leadsTo: string | null
  at: Instant
  readAt: Instant | null
}

export const listNotices = endpoint<object, { rows: Notice[]; unread: number }>({
  method: 'GET',
  path: '/api/notices',
  says: 'What you were told, newest first.',
  may: 'self.read',
})

export const readNotices = endpoint<object, { unread: number }>({
  method: 'POST',
  path: '/api/notices/read',
  says: 'Mark everything you were told as read.',
  may: 'self.read',
})

export interface PersonRow {
  id: number
  name: string
  email: string | null
  phone: string | null
  extension: string | null
  title: string | null
  placeId: number | null
  placeName: string | null
  payerId: number | null
}

export const findPeople = endpoint<{ q?: string; limit?: number }, { rows: PersonRow[] }>({
  method: 'GET',
  path: '/api/people',
  says: 'Find people by part of name, mail address or extension.',
  may: 'desk.read',
  input: Joi.object<{ q?: string; limit?: number }, true>({ q: field.search(), limit: field.limit() }),
})

/** Everything the change forms offer from: small lists that rarely change. */
export interface Vocabulary {
  trades: { id: number; name: string }[]
  categories: { id: number; name: string; tradeId: number | null }[]
  payers: { id: number; code: string; name: string; kind: string; retired: boolean }[]
  teams: { id: number; name: string; retired: boolean }[]
  accounts: { id: number; name: string; roles: Role[] }[]
  sites: { id: number; code: string; name: string }[]
  technicians: { id: number; name: string }[]
  /** What technicians can do besides their trades, each name once. */
  skills: string[]
  vendors: { id: number; name: string; retired: boolean }[]
  /** States sites have added under ours. */
  ownStates: (OwnState & { retired: boolean })[]
}

export const readVocabulary = endpoint<object, Vocabulary>({
  method: 'GET',
  path: '/api/vocabulary',
  says: 'Trades, categories, payers, teams and people to choose from.',
  may: 'desk.read',
})

export * from './records'
export * from './crew'
