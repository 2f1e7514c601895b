import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Done, Instant } from '#contract/kit'
import { MOST_TIMES } from '#core/windows'
import type { OfferState } from '#core/windows'

export interface OfferedTime {
  from: Instant
  until: Instant
}

/** Times offered to somebody, as the desk sees them. */
export interface TimeOffer {
  id: number
  version: number
  name: string
  email: string
  times: OfferedTime[]
  note: string | null
  state: OfferState
  /** Still open, and all of its times have passed. */
  passed: boolean
  chosen: OfferedTime | null
  /** What was said with the answer. */
  answer: string | null
  askedAt: Instant
  askedBy: string
  answeredAt: Instant | null
}
export interface OrderWindows {
  offers: TimeOffer[]
  /** Who may be asked: whoever reported what the order answers. */
  whom: { name: string; email: string }[]
  /** Times to begin an offer with. */
  proposed: OfferedTime[]
  mayOffer: boolean
}

const ofOrder = { orderId: field.id().required() }
const period = { from: field.instant().required(), until: field.instant().required() }

export const readOrderWindows = endpoint<{ orderId: number }, OrderWindows>({
  method: 'GET',
  path: '/api/orders/:orderId/windows',
  says: 'Times for access that were offered on an order, and what came of them.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>(ofOrder),
})

interface Offer {
  orderId: number
  name: string
  email: string
  times: { from: string; until: string }[]
  note?: string
}
export const offerTimes = endpoint<Offer, OrderWindows>({
  method: 'POST',
  path: '/api/orders/:orderId/windows',
  says: 'Offer times for access to somebody by mail; what was offered before and not answered is taken back.',
  may: 'orders.edit',
  input: Joi.object<Offer, true>({
    ...ofOrder,
    name: field.name().min(1).required(),
    email: field.email().required(),
    times: Joi.array().items(Joi.object(period)).min(1).max(MOST_TIMES).required(),
    note: field.line(300).allow(''),
  }),
})

interface Of {
  id: number
  version: number
}
const of = { id: field.id().required(), version: field.version().required() }
export const withdrawTimes = endpoint<Of, OrderWindows>({
  method: 'POST',
  path: '/api/time-offers/:id/withdraw',
  says: 'Take back times that were offered and not answered.',
  may: 'orders.edit',
  input: Joi.object<Of, true>(of),
})

interface Agreed extends Of {
  from: string | null
  until: string | null
  with?: string
}
export const agreeWindow = endpoint<Agreed, Done>({
  method: 'POST',
  path: '/api/orders/:id/window',
  says: 'Note the time agreed with whoever lets people in, or take it off with two nulls.',
  may: 'orders.edit',
  input: Joi.object<Agreed, true>({
    ...of,
    from: field.instant().allow(null).required(),
    until: field.instant().allow(null).required(),
    with: field.line(120).allow(''),
  }),
})

/** What somebody chooses from, by their link alone: nothing of money, and of no other order. */
export interface TimesPage {
  site: { name: string; deskPhone: string; zone: string }
  number: string
  summary: string
  place: string | null
  name: string
  note: string | null
  times: (OfferedTime & { gone: boolean })[]
  state: OfferState
  chosen: OfferedTime | null
  answer: string | null
  /** Why nothing can be chosen any more, or null while it can. */
  over: string | null
}

const byToken = { token: field.token().required() }
export const readTimes = endpoint<{ token: string }, TimesPage>({
  method: 'GET',
  path: '/api/times/:token',
  says: 'The times somebody may choose from, by the link mailed to them. Opening it chooses nothing.',
  may: 'reporter',
  input: Joi.object<{ token: string }, true>(byToken),
})
interface Choice {
  token: string
  from: string
  note?: string
}
export const chooseTime = endpoint<Choice, TimesPage>({
  method: 'POST',
  path: '/api/times/:token/choose',
  says: 'Choose the offered time that begins then; the order keeps it. Until it has begun another can be chosen.',
  may: 'reporter',
  input: Joi.object<Choice, true>({ ...byToken, from: field.instant().required(), note: field.line(300).allow('') }),
})
export const sayNoneFits = endpoint<{ token: string; note: string }, TimesPage>({
  method: 'POST',
  path: '/api/times/:token/none',
  says: 'Say that none of the times fits, and what would.',
  may: 'reporter',
  input: Joi.object<{ token: string; note: string }, true>({ ...byToken, note: field.line(300).required() }),
})

export const listTrackedTimes = endpoint<{ token: string }, { rows: { token: string; number: string }[] }>({
  method: 'GET',
  path: '/api/track/:token/times',
  says: 'Offers of times that wait for the reporter or were answered by them, each by its own link.',
  may: 'reporter',
  input: Joi.object<{ token: string }, true>({ token: field.token().required() }),
})
