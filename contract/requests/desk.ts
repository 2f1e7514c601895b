import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Done, Instant, ListLine, Page } from '#contract/kit'
import type { PhotoStage } from '#core/field'
import type { Reason } from '#core/kit'
import { CONSEQUENCES, ENTERED_CHANNELS, LIKELIHOODS, PRIORITIES, REQUEST_STATES, SEVERITIES, URGENCIES } from '#core/requests'
import type { Channel, Consequence, EnteredChannel, Likelihood, Priority, PriorityRules, RequestFacts, RequestState, Severity, Urgency } from '#core/requests'
import type { KnownBulletin } from './counter'

/** A request as queues and lists show it. */
export interface RequestLine extends ListLine {
  state: RequestState
  takenUp: boolean
  channel: Channel
  reporter: string | null
  takenup: string | null
  received: Instant
  decided: Instant | null
  wish: string | null
}

export const listRequests = endpoint<
  { station?: 'intake' | 'triage'; state?: RequestState; q?: string; after?: string; limit?: number; placeId?: number; assetId?: number },
  Page<RequestLine>
>({
  method: 'GET',
  path: '/api/requests',
  says: 'Requests, the most pressing first.',
  may: 'desk.read',
  input: Joi.object<
    { station?: 'intake' | 'triage'; state?: RequestState; q?: string; after?: string; limit?: number; placeId?: number; assetId?: number },
    true
  >({
    station: field.oneOf(['intake', 'triage']),
    state: field.oneOf(REQUEST_STATES),
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
  /** A kind of `core/events`. */
  kind: string
  who: string
  from: string | null
  to: string | null
  reason: string | null
  details: { fields?: Record<string, { from: unknown; to: unknown }>; [key: string]: unknown } | null
}

export interface AttachmentRow {
  id: number
  kind: 'picture' | 'document'
  name: string
  mime: string
  width: number | null
  height: number | null
  /** Of a picture from a job: how it was found, how it was left, or who signed. */
  stage: PhotoStage | 'signature' | null
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

/** What a payer may spend this year, what was charged of it, and what approved work will cost. */
export interface PayerBudget {
  payerId: number
  budgetMinor: number
  chargedMinor: number
  committedMinor: number
}

export interface RequestSheet {
  id: number
  number: string
  version: number
  site: { id: number; zone: string; currency: string }
  /** By what its site makes a priority. */
  decides: PriorityRules
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
  hazardSeverity: Severity | 'none' | null
  hazardLikelihood: Likelihood | null
  priority: Priority | null
  prioritySentence: string | null
  priorityOverridden: boolean
  /** What the priority promises, from now, in minutes on its clock. */
  promise: { clock: string; responseMinutes: number; completionMinutes: number } | null
  wish: string | null
  payerId: number | null
  outsideReference: string | null
  receivedAt: Instant
  /** When somebody at the desk first took it up, and when it was decided. */
  takenUpAt: Instant | null
  decidedAt: Instant | null
  triageCloseAt: Instant
  triageDueAt: Instant
  question: string | null
  declineReason: string | null
  joinedTo: { id: number; number: string } | null
  joinedFrom: { id: number; number: string }[]
  orders: { id: number; number: string; state: string; summary: string }[]
  /** What the category asked, as it stood then, with what was answered. */
  answers: { label: string; answer: string }[]
  /** Said to be not fixed: the request it repeats. */
  repeats: { id: number; number: string } | null
  followers: { name: string | null; email: string }[]
  /** What a sending system said besides; a picture elsewhere is only ever a link. */
  sentBy: { lat?: number; long?: number; address?: string; mediaUrl?: string; accountId?: string } | null
  /** The mails it was made of and answered by: all of each can be opened. */
  mails: { id: number; subject: string | null; receivedAt: Instant; leftOut: string | null }[]
  /** Notices that cover the place now or soon. */
  bulletins: KnownBulletin[]
  /** What was decided last, and why the person asking cannot take it back; no reasons, and they can. */
  outcome: { move: string; order: string | null; reasons: Reason[] } | null
  /** What the payer’s budget says, when there is a payer with one. */
  budget: PayerBudget | null
  attachments: AttachmentRow[]
}

const byId = { id: field.id().required() }
const byVersion = { ...byId, version: field.version().required() }

export const readRequest = endpoint<{ id: number }, RequestSheet>({
  method: 'GET',
  path: '/api/requests/:id',
  says: 'One request in full.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>(byId),
})

export const readRequestTimeline = endpoint<{ id: number }, { entries: TimelineEntry[] }>({
  method: 'GET',
  path: '/api/requests/:id/timeline',
  says: 'What happened to a request and the orders it led to, newest first.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>(byId),
})

export interface TriageFields {
  summary?: string
  description?: string
  placeId?: number | null
  assetId?: number | null
  categoryId?: number | null
  consequence?: Consequence | null
  urgency?: Urgency | null
  hazardSeverity?: Severity | 'none' | null
  hazardLikelihood?: Likelihood | null
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
  input: Joi.object<{ id: number; version: number } & TriageFields, true>({
    ...byVersion,
    summary: field.line(),
    description: field.words().min(1),
    placeId: field.id().allow(null),
    assetId: field.id().allow(null),
    categoryId: field.id().allow(null),
    consequence: field.oneOf(CONSEQUENCES).allow(null),
    urgency: field.oneOf(URGENCIES).allow(null),
    hazardSeverity: field.oneOf([...SEVERITIES, 'none']).allow(null),
    hazardLikelihood: field.oneOf(LIKELIHOODS).allow(null),
    priority: field.oneOf(PRIORITIES),
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
  input: Joi.object<{ id: number; version: number }, true>(byVersion),
})

export const acceptRequest = endpoint<{ id: number; version: number; orderId?: number }, { orderId: number; orderNumber: string }>({
  method: 'POST',
  path: '/api/requests/:id/accept',
  says: 'Accept as a new order, or into an existing one.',
  may: 'requests.triage',
  input: Joi.object<{ id: number; version: number; orderId?: number }, true>({ ...byVersion, orderId: field.id() }),
})

export const makeAnotherOrder = endpoint<{ id: number; version: number; summary: string }, { orderId: number; orderNumber: string }>({
  method: 'POST',
  path: '/api/requests/:id/orders',
  says: 'Make one more order from an accepted request.',
  may: 'requests.triage',
  input: Joi.object<{ id: number; version: number; summary: string }, true>({ ...byVersion, summary: field.line().required() }),
})

export const undoOutcome = endpoint<{ id: number; version: number }, Done>({
  method: 'POST',
  path: '/api/requests/:id/undo',
  says: 'Take your last outcome back, while nobody else has acted on it.',
  may: 'requests.triage',
  input: Joi.object<{ id: number; version: number }, true>(byVersion),
})

const reasoned = Joi.object<{ id: number; version: number; reason: string }, true>({ ...byVersion, reason: field.words(2000).allow('') })

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
  input: Joi.object<{ id: number; version: number; toId: number }, true>({ ...byVersion, toId: field.id().required() }),
})

export interface CallEntry {
  siteId?: number
  personId?: number | null
  assetId?: number | null
  categoryId?: number | null
  payerId?: number | null
  channel?: EnteredChannel
  outsideReference?: string
  /** The same trouble is there already: kept as a request of its own, joined to that one. */
  joinToId?: number | null
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
  input: Joi.object<CallEntry, true>({
    /** The site of the place, unless said. */
    siteId: field.id(),
    personId: field.id().allow(null),
    assetId: field.id().allow(null),
    categoryId: field.id().allow(null),
    payerId: field.id().allow(null),
    channel: field.oneOf(ENTERED_CHANNELS),
    outsideReference: field.words(80).allow(''),
    joinToId: field.id().allow(null),
    name: field.name().allow(''),
    email: field.email().allow(''),
    phone: field.words(40).allow(''),
    placeId: field.id().required().messages({ 'any.required': 'Choose where it is.', 'number.base': 'Choose where it is.' }),
    summary: field.line().required(),
    /** The one line is enough for a call. */
    description: field.words().allow('').default(''),
  }),
})

/** What stands beside a caller: where they are, who pays, what they wait for, what was done for them. */
export interface Caller {
  id: number
  name: string
  email: string | null
  phone: string | null
  place: { id: number; label: string } | null
  payer: { id: number; label: string } | null
  open: { id: number; number: string; summary: string; state: string; receivedAt: Instant }[]
  lastJobs: { id: number; number: string; summary: string; finishedAt: Instant; outcome: string }[]
}

export const readCaller = endpoint<{ id: number }, Caller>({
  method: 'GET',
  path: '/api/callers/:id',
  says: 'What is known of somebody who calls.',
  may: 'requests.triage',
  input: Joi.object<{ id: number }, true>(byId),
})

export const findTwins = endpoint<
  { placeId: number; assetId?: number; words?: string },
  { rows: { id: number; number: string; summary: string; receivedAt: Instant }[] }
>({
  method: 'GET',
  path: '/api/twins',
  says: 'Open requests at a place that may be the same trouble, the likeliest first.',
  may: 'requests.triage',
  input: Joi.object<{ placeId: number; assetId?: number; words?: string }, true>({
    placeId: field.id().required(),
    assetId: field.id(),
    words: field.search(),
  }),
})

export const findSummaries = endpoint<{ q: string }, { rows: string[] }>({
  method: 'GET',
  path: '/api/summaries',
  says: 'Summaries written before that begin like this, the most used first.',
  may: 'requests.triage',
  input: Joi.object<{ q: string }, true>({ q: field.search().required() }),
})
