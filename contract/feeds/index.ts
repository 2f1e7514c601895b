import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { FEED_REGISTERS } from '#core/feeds'
import type { FeedRegister } from '#core/feeds'

export interface FeedRow {
  id: number
  for: string
  /** What a calendar program subscribes to; a secret. */
  address: string
  madeAt: Instant
  readAt: Instant | null
}
export interface Feeds {
  rows: FeedRow[]
  /** Why none can be made, or null when one can. */
  whyNot: string | null
}

interface Of {
  register: FeedRegister
  recordId: number
}
const of = { register: field.oneOf(FEED_REGISTERS).required(), recordId: field.id().required() }
const path = '/api/registers/:register/:recordId/feeds'
export const listFeeds = endpoint<Of, Feeds>({
  method: 'GET',
  path,
  says: 'Calendar feeds of a technician, team, vendor or place that are in use.',
  may: 'registers.edit',
  input: Joi.object<Of, true>(of),
})
export const makeFeed = endpoint<Of & { for: string }, Feeds>({
  method: 'POST',
  path,
  says: 'Make a secret address from which a calendar program reads visits.',
  may: 'registers.edit',
  input: Joi.object<Of & { for: string }, true>({ ...of, for: field.line(120).required() }),
})
export const revokeFeed = endpoint<{ id: number }, Feeds>({
  method: 'POST',
  path: '/api/feeds/:id/revoke',
  says: 'Take a calendar feed back: its address tells nothing any more.',
  may: 'registers.edit',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export const readMyFeed = endpoint<object, { address: string | null }>({
  method: 'GET',
  path: '/api/my-feed',
  says: 'The calendar feed a technician has made of their own visits.',
  may: 'field.work',
})
export const makeMyFeed = endpoint<object, { address: string | null }>({
  method: 'POST',
  path: '/api/my-feed',
  says: 'Make a calendar feed of my own visits; one made before is taken back.',
  may: 'field.work',
})
export const revokeMyFeed = endpoint<object, { address: string | null }>({
  method: 'DELETE',
  path: '/api/my-feed',
  says: 'Take my calendar feed back.',
  may: 'field.work',
})

export const readFeed = endpoint<{ token: string }, string>({
  method: 'GET',
  path: '/api/feed/:token/visits.ics',
  says: 'Visits as iCalendar, for a calendar program that holds the secret address.',
  may: 'vendor',
  answers: 'file',
  input: Joi.object<{ token: string }, true>({ token: field.token().required() }),
})
