import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { Answers, CounterFields, Progress, Question } from '#core/requests'

/** How to reach the desk of a site: always in sight. */
export interface SiteContact {
  code: string
  name: string
  deskPhone: string
  deskEmail: string
}

/** A category as a reporter chooses it, with the questions it carries. */
export interface CounterCategory {
  id: number
  parentId: number | null
  name: string
  hint: string | null
  formId: number | null
  questions: Question[]
}

/** What anybody may know of a site. */
export interface CounterSite extends SiteContact {
  fields: CounterFields
  categories: CounterCategory[]
}

/** A place, or an asset with the place it stands in. */
export interface CounterSpot {
  placeId: number
  assetId: number | null
  /** The place's code, or the asset's tag. */
  code: string
  name: string
  /** The names above it, nearest first. */
  within: string
}

const site = () => Joi.string().alphanum().max(8).required()
const chosenPlace = () => field.id().required().messages({ 'any.required': 'Choose where it is.', 'number.base': 'Choose where it is.' })
export const answersGiven = () =>
  Joi.object()
    .pattern(Joi.string().max(32), Joi.alternatives(Joi.number(), Joi.string().allow('').max(500), Joi.array().items(Joi.string().max(80)).max(40)))
    .max(60)
export const fileClaims = () => Joi.array().items(field.token()).max(10)

export const readCounter = endpoint<{ site: string }, CounterSite>({
  method: 'GET',
  path: '/api/counter/:site',
  says: 'What the public page of a site asks for and offers.',
  may: 'public',
  input: Joi.object<{ site: string }, true>({ site: site() }),
})

export const findCounterSpots = endpoint<{ site: string; q?: string; near?: number }, { rows: CounterSpot[] }>({
  method: 'GET',
  path: '/api/counter/:site/spots',
  says: 'Find a place or an asset by part of its code, tag or name, also with a typing error; those near another place come first.',
  may: 'public',
  input: Joi.object<{ site: string; q?: string; near?: number }, true>({ site: site(), q: field.search(), near: field.id() }),
})

export const readCounterSpot = endpoint<{ site: string; place?: string; asset?: string }, CounterSpot>({
  method: 'GET',
  path: '/api/counter/:site/spot',
  says: 'The place or asset a printed code stands for.',
  may: 'public',
  input: Joi.object<{ site: string; place?: string; asset?: string }, true>({ site: site(), place: Joi.string().max(32), asset: Joi.string().max(32) }).or(
    'place',
    'asset',
  ),
})

export interface KeptFile {
  claim: string
  kind: 'picture' | 'document'
  name: string
  width: number | null
  height: number | null
  bytes: number
}

export const uploadCounterFile = endpoint<{ site: string; name?: string }, KeptFile>({
  method: 'POST',
  path: '/api/counter/:site/files',
  says: 'Send a photo or document ahead of a request; the claim attaches it.',
  may: 'public',
  upload: true,
  input: Joi.object<{ site: string; name?: string }, true>({ site: site(), name: Joi.string().trim().max(160) }),
})

export const readClaimedFile = endpoint<{ site: string; claim: string }, Blob>({
  method: 'GET',
  path: '/api/counter/:site/files/:claim',
  says: 'A photo that was sent ahead and hangs on nothing yet, for whoever holds its claim.',
  may: 'public',
  answers: 'file',
  input: Joi.object<{ site: string; claim: string }, true>({ site: site(), claim: field.token().required() }),
})

/** Something that is reported already, with nothing of who reported it. */
export interface KnownRequest {
  id: number
  /** The desk's words once it has read it; before that only what it is about. */
  summary: string
  place: string
  since: Instant
  progress: Progress
}

export interface KnownBulletin {
  id: number
  kind: 'closure' | 'works' | 'event'
  title: string
  body: string
  startsAt: Instant
  endsAt: Instant
}

export interface KnownArticle {
  id: number
  title: string
  body: string
  documents: { id: number; name: string; bytes: number }[]
}

export const readAround = endpoint<
  { site: string; placeId?: number; assetId?: number; words?: string; categoryId?: number },
  { requests: KnownRequest[]; bulletins: KnownBulletin[]; articles: KnownArticle[] }
>({
  method: 'GET',
  path: '/api/counter/:site/around',
  says: 'What is known here already: open requests, notices, help that fits the words.',
  may: 'public',
  input: Joi.object<{ site: string; placeId?: number; assetId?: number; words?: string; categoryId?: number }, true>({
    site: site(),
    placeId: field.id(),
    assetId: field.id(),
    words: field.search(),
    categoryId: field.id(),
  }),
})

export const followRequest = endpoint<{ site: string; id: number; email: string; name?: string }, { following: true }>({
  method: 'POST',
  path: '/api/counter/:site/requests/:id/follow',
  says: 'Me too: hear how a request that is there already goes.',
  may: 'public',
  input: Joi.object<{ site: string; id: number; email: string; name?: string }, true>({
    site: site(),
    id: field.id().required(),
    email: field.email().required(),
    name: field.name().allow(''),
  }),
})

export interface NewRequest {
  site: string
  placeId: number
  assetId?: number | null
  summary: string
  description: string
  categoryId?: number | null
  /** The form whose questions were asked; the server checks the answers by it. */
  formId?: number | null
  answers?: Answers
  name?: string
  email?: string
  phone?: string
  wish?: string
  fileClaims?: string[]
}

export const reportRequest = endpoint<NewRequest, { number: string; link: string }>({
  method: 'POST',
  path: '/api/counter/:site/requests',
  says: 'Report something. Answers the reference and the private link.',
  may: 'public',
  input: Joi.object<NewRequest, true>({
    site: site(),
    placeId: chosenPlace(),
    assetId: field.id().allow(null),
    summary: field.line().required(),
    description: field.words().min(1).required(),
    categoryId: field.id().allow(null),
    formId: field.id().allow(null),
    answers: answersGiven(),
    name: field.name().allow(''),
    email: field.email().allow(''),
    phone: field.words(40).allow(''),
    wish: field.words(200).allow(''),
    fileClaims: fileClaims(),
  }),
})

export const askForMine = endpoint<{ site: string; email: string }, { sent: true }>({
  method: 'POST',
  path: '/api/counter/:site/mine',
  says: 'Mail a link to everything sent from this address. The answer never says whether there is anything.',
  may: 'public',
  input: Joi.object<{ site: string; email: string }, true>({ site: site(), email: field.email().required() }),
})

export interface MyRequest {
  number: string
  summary: string
  place: string | null
  receivedAt: Instant
  progress: Progress
  link: string
}

export const readMine = endpoint<{ token: string }, { email: string; site: SiteContact; rows: MyRequest[]; counts: { step: string; count: number }[] }>({
  method: 'GET',
  path: '/api/mine/:token',
  says: 'Everything somebody has sent, by the link mailed to them.',
  may: 'reporter',
  input: Joi.object<{ token: string }, true>({ token: field.token().required() }),
})
