import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { sentBefore } from '#contract/field'
import type { SentBefore } from '#contract/field'
import type { KnownRequest } from '#contract/requests'
import type { OrderKind } from '#core/orders'
import type { Progress } from '#core/requests'

/** A place, or an asset with the place it stands in. */
export interface SpotLine {
  placeId: number
  assetId: number | null
  code: string
  name: string
  within: string
}

export const findSpot = endpoint<{ q: string }, { rows: SpotLine[] }>({
  method: 'GET',
  path: '/api/rounds-spots',
  says: 'Find a place or an asset of my site by code, name or tag; a whole code comes first.',
  may: 'field.work',
  input: Joi.object<{ q: string }, true>({ q: field.search().required() }),
})

/** What is known of where somebody stands. No money, nobody’s name, and of others’ jobs no more than reporters read. */
export interface SpotSheet extends SpotLine {
  /** How to get in. */
  access: string | null
  asset: { tag: string; name: string; classCode: string | null; maker: string | null; model: string | null; serial: string | null } | null
  /** Reported already and open. */
  known: KnownRequest[]
  /** My own jobs here that are not over. */
  mine: { visitId: number; number: string; summary: string; plannedStart: Instant; state: string }[]
  /** Work here that nobody reported: what it is, and how it goes. */
  planned: { kind: OrderKind; progress: Progress }[]
  /** What was done here, with cause and fix. */
  earlier: { number: string; finishedAt: Instant; symptom: string | null; cause: string | null; fix: string | null }[]
  /** Why nothing can be started here by whoever asks; null when it can. */
  whyNotStart: string | null
}

interface Where {
  placeId?: number
  assetId?: number
}
const where = { placeId: field.id(), assetId: field.id() }
export const readSpot = endpoint<Where, SpotSheet>({
  method: 'GET',
  path: '/api/rounds-spot',
  says: 'Where I stand: what is open and known here, what was done before.',
  may: 'field.work',
  input: Joi.object<Where, true>(where).or('placeId', 'assetId'),
})

/** What is wrong somewhere, as it was seen or told in passing. */
interface Reported extends Where {
  /** What whoever records it calls it, so that photos find it. */
  mark: string
  /** A code or tag where it is not known as a place or an asset yet. */
  code?: string
  text: string
  /** Who asked for it, where that is somebody else; with a mail address they hear of it. */
  asker?: string
  askerEmail?: string
  happenedAt?: Instant
}
const mark = field.mark().required()
const reported = {
  ...where,
  mark,
  code: field.line(80).allow(''),
  text: field.words(2000).min(1).required().messages({ 'any.required': 'Say what is wrong.', 'string.empty': 'Say what is wrong.' }),
  asker: field.line(120).allow(''),
  askerEmail: field.email().allow(''),
  happenedAt: field.instant(),
}

export const reportHere = endpoint<Reported, { number: string }>({
  method: 'POST',
  path: '/api/rounds-reports',
  says: 'Report what is wrong somewhere, as it was seen or told in passing: it comes to the desk as a request.',
  may: 'field.work',
  input: Joi.object<Reported, true>(reported),
})

/** What a photo shows of what was reported. */
interface Pictured {
  mark: string
  happenedAt?: Instant
}
const pictured = { mark, happenedAt: field.instant() }

export const addReportPhoto = endpoint<Pictured, { number: string }>({
  method: 'POST',
  path: '/api/rounds-reports/:mark/photos',
  says: 'Add a photo to what I reported.',
  may: 'field.work',
  upload: true,
  input: Joi.object<Pictured, true>(pictured),
})

export const addSentReportPhoto = endpoint<Pictured & SentBefore, { number: string }>({
  method: 'POST',
  path: '/api/rounds-reports/:mark/sent-photos',
  says: 'Add a photo to what I reported that was sent in pieces.',
  may: 'field.work',
  input: Joi.object<Pictured & SentBefore, true>({ ...pictured, ...sentBefore }),
})

export const startHere = endpoint<Reported, { visitId: number; number: string }>({
  method: 'POST',
  path: '/api/rounds-starts',
  says: 'Start on the spot, where the site lets small work be started: request, order, visit and clock in one act.',
  may: 'field.work',
  input: Joi.object<Reported, true>(reported),
})

export const askedAgain = endpoint<{ requestId: number; text?: string }, { number: string }>({
  method: 'POST',
  path: '/api/rounds-spot/again',
  says: 'Say that what is known here was asked for again, with what was said.',
  may: 'field.work',
  input: Joi.object<{ requestId: number; text?: string }, true>({ requestId: field.id().required(), text: field.words(500).allow('') }),
})
