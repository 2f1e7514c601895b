import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Done, Instant, Page } from '#contract/kit'
import { CONSEQUENCES, PRIORITIES, URGENCIES } from '#core/requests'
import type { Consequence, Priority, Progress, RequestFacts, RequestState, Urgency } from '#core/requests'

/** What anybody may know of a site. */
export interface CounterSite {
  code: string
  name: string
  deskPhone: string
  deskEmail: string
}

export interface CounterPlace {
  id: number
  code: string
  name: string
  /** The names above it, nearest first. */
  within: string
}

const site = () => Joi.string().alphanum().max(8).required()

export const readCounter = endpoint<{ site: string }, CounterSite>({
  method: 'GET',
  path: '/api/counter/:site',
  says: 'What the public page of a site shows.',
  may: 'public',
  input: Joi.object({ site: site() }),
})

export const findCounterPlaces = endpoint<{ site: string; q: string }, { rows: CounterPlace[] }>({
  method: 'GET',
  path: '/api/counter/:site/places',
  says: 'Find a place by part of its code or name.',
  may: 'public',
  input: Joi.object({ site: site(), q: field.search().required() }),
})

export const uploadCounterPhoto = endpoint<{ site: string }, { claim: string; width: number; height: number }>({
  method: 'POST',
  path: '/api/counter/:site/photos',
  says: 'Send a photo ahead of a request; the claim attaches it.',
  may: 'public',
  upload: true,
  input: Joi.object({ site: site() }),
})

export interface NewRequest {
  site: string
  placeId: number
  summary: string
  description: string
  name?: string
  email?: string
  phone?: string
  wish?: string
  photoClaims?: string[]
}

export const reportRequest = endpoint<NewRequest, { number: string; link: string }>({
  method: 'POST',
  path: '/api/counter/:site/requests',
  says: 'Report something. Answers the reference and the private link.',
  may: 'public',
  input: Joi.object({
    site: site(),
    placeId: field.id().required().messages({ 'any.required': 'Choose where it is.', 'number.base': 'Choose where it is.' }),
    summary: field.line().required(),
    description: field.words().min(1).required(),
    name: field.words(120).allow(''),
    email: field.email().allow(''),
    phone: field.words(40).allow(''),
    wish: field.words(200).allow(''),
    photoClaims: Joi.array().items(field.token()).max(10),
  }),
})

/** What a reporter sees through the private link: nothing internal. */
export interface TrackedRequest {
  number: string
  site: CounterSite
  summary: string
  description: string
  place: string | null
  receivedAt: Instant
  progress: Progress
  steps: { at: Instant; sentence: string }[]
  photos: { id: number; width: number | null; height: number | null }[]
  mayAnswer: boolean
}

export const trackRequest = endpoint<{ token: string }, TrackedRequest>({
  method: 'GET',
  path: '/api/track/:token',
  says: 'Where a request stands, in the reporter’s words.',
  may: 'reporter',
  input: Joi.object({ token: field.token().required() }),
})

export const answerQuestion = endpoint<{ token: string; answer: string }, TrackedRequest>({
  method: 'POST',
  path: '/api/track/:token/answer',
  says: 'Answer the desk’s question.',
  may: 'reporter',
  input: Joi.object({ token: field.token().required(), answer: field.words(2000).min(1).required() }),
})

export const readTrackedPhoto = endpoint<{ token: string; photoId: number }, Blob>({
  method: 'GET',
  path: '/api/track/:token/photos/:photoId',
  says: 'A photo of the reporter’s own request.',
  may: 'reporter',
  answers: 'image',
  input: Joi.object({ token: field.token().required(), photoId: field.id().required() }),
})

export interface RequestRow {
  id: number
  number: string
  state: RequestState
  summary: string
  placeCode: string | null
  placeName: string | null
  priority: Priority | null
  channel: string
  reporterName: string | null
  receivedAt: Instant
  closeAt: Instant
  dueAt: Instant
}

export const listRequests = endpoint<
  { station?: 'intake' | 'triage'; state?: RequestState; q?: string; after?: string; limit?: number; placeId?: number; assetId?: number },
  Page<RequestRow>
>({
  method: 'GET',
  path: '/api/requests',
  says: 'Requests, the most pressing first.',
  may: 'desk.read',
  input: Joi.object({
    station: Joi.valid('intake', 'triage'),
    state: Joi.valid('new', 'asked', 'accepted', 'joined', 'declined'),
    q: field.search(),
    after: Joi.string().max(120),
    limit: field.limit(),
    placeId: field.id(),
    assetId: field.id(),
  }),
})

export interface TimelineEntry {
  id: number
  at: Instant
  kind: string
  who: string
  from: string | null
  to: string | null
  reason: string | null
  details: { fields?: Record<string, { from: unknown; to: unknown }>; [key: string]: unknown } | null
}

export interface AttachmentRow {
  id: number
  name: string
  mime: string
  width: number | null
  height: number | null
}

export interface NamedPlace {
  id: number
  code: string
  name: string
  within: string
  access: string | null
}

export interface NamedAsset {
  id: number
  tag: string
  name: string
}

export interface RequestSheet {
  id: number
  number: string
  version: number
  site: { id: number; zone: string; currency: string }
  facts: RequestFacts
  state: RequestState
  channel: string
  summary: string
  description: string
  writtenSummary: string
  writtenDescription: string
  reporter: { id: number | null; name: string | null; email: string | null; phone: string | null }
  place: NamedPlace | null
  asset: NamedAsset | null
  categoryId: number | null
  consequence: Consequence | null
  urgency: Urgency | null
  priority: Priority | null
  prioritySentence: string | null
  priorityOverridden: boolean
  /** What the priority promises, from now, in minutes on its clock. */
  promise: { clock: string; responseMinutes: number; completionMinutes: number } | null
  wish: string | null
  payerId: number | null
  outsideReference: string | null
  receivedAt: Instant
  triageCloseAt: Instant
  triageDueAt: Instant
  question: string | null
  declineReason: string | null
  joinedTo: { id: number; number: string } | null
  joinedFrom: { id: number; number: string }[]
  orders: { id: number; number: string; state: string; summary: string }[]
  attachments: AttachmentRow[]
  timeline: TimelineEntry[]
}

const byId = { id: field.id().required() }
const byVersion = { ...byId, version: field.version().required() }

export const readRequest = endpoint<{ id: number }, RequestSheet>({
  method: 'GET',
  path: '/api/requests/:id',
  says: 'One request in full.',
  may: 'desk.read',
  input: Joi.object(byId),
})

export interface TriageFields {
  summary?: string
  description?: string
  placeId?: number | null
  assetId?: number | null
  categoryId?: number | null
  consequence?: Consequence | null
  urgency?: Urgency | null
  priority?: Priority | null
  priorityReason?: string
  payerId?: number | null
  outsideReference?: string | null
}

export const triageRequest = endpoint<{ id: number; version: number } & TriageFields, RequestSheet>({
  method: 'PATCH',
  path: '/api/requests/:id',
  says: 'Correct a request while deciding on it.',
  may: 'requests.triage',
  input: Joi.object({
    ...byVersion,
    summary: field.line(),
    description: field.words().min(1),
    placeId: field.id().allow(null),
    assetId: field.id().allow(null),
    categoryId: field.id().allow(null),
    consequence: Joi.valid(...CONSEQUENCES, null),
    urgency: Joi.valid(...URGENCIES, null),
    priority: Joi.valid(...PRIORITIES),
    priorityReason: field.words(200),
    payerId: field.id().allow(null),
    outsideReference: field.words(80).allow('', null),
  }),
})

export const takeUpRequest = endpoint<{ id: number; version: number }, Done>({
  method: 'POST',
  path: '/api/requests/:id/take-up',
  says: 'Take a request from Intake into Triage.',
  may: 'requests.triage',
  input: Joi.object(byVersion),
})

export const acceptRequest = endpoint<{ id: number; version: number; orderId?: number }, { orderId: number; orderNumber: string }>({
  method: 'POST',
  path: '/api/requests/:id/accept',
  says: 'Accept as a new order, or into an existing one.',
  may: 'requests.triage',
  input: Joi.object({ ...byVersion, orderId: field.id() }),
})

const reasoned = Joi.object({ ...byVersion, reason: field.words(2000).allow('') })

export const askReporter = endpoint<{ id: number; version: number; reason: string }, Done>({
  method: 'POST',
  path: '/api/requests/:id/ask',
  says: 'Ask the reporter a question, by mail and on their link.',
  may: 'requests.triage',
  input: reasoned,
})

export const declineRequest = endpoint<{ id: number; version: number; reason: string }, Done>({
  method: 'POST',
  path: '/api/requests/:id/decline',
  says: 'Decline; the reporter is told why.',
  may: 'requests.triage',
  input: reasoned,
})

export const joinRequest = endpoint<{ id: number; version: number; toId: number }, Done>({
  method: 'POST',
  path: '/api/requests/:id/join',
  says: 'Join a duplicate to the request it repeats.',
  may: 'requests.triage',
  input: Joi.object({ ...byVersion, toId: field.id().required() }),
})

export interface CallEntry {
  siteId: number
  personId?: number | null
  name?: string
  email?: string
  phone?: string
  placeId: number
  summary: string
  description: string
}

export const enterCall = endpoint<CallEntry, { id: number; number: string }>({
  method: 'POST',
  path: '/api/requests',
  says: 'Enter a call or a visit at the desk.',
  may: 'requests.triage',
  input: Joi.object({
    siteId: field.id().required(),
    personId: field.id().allow(null),
    name: field.words(120).allow(''),
    email: field.email().allow(''),
    phone: field.words(40).allow(''),
    placeId: field.id().required().messages({ 'any.required': 'Choose where it is.', 'number.base': 'Choose where it is.' }),
    summary: field.line().required(),
    description: field.words().min(1).required(),
  }),
})
