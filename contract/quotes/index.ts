import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { SiteWriting } from '#core/kit'
import { MOST_ASKED } from '#core/quotes'
import type { QuoteState } from '#core/quotes'

/** A price asked for, as the desk sees it. */
export interface QuoteRow {
  id: number
  version: number
  vendorId: number
  vendor: string
  state: QuoteState
  wanted: string
  askedAt: Instant
  askedBy: string
  dueAt: Instant
  /** The time to answer has passed. */
  late: boolean
  netMinor: number | null
  taxBp: number | null
  earliestAt: Instant | null
  validUntil: string | null
  answer: string | null
  answeredAt: Instant | null
  /** Among those named: how much above the lowest that still stands, and whether it does not stand any more. */
  aboveMinor: number | null
  lowest: boolean
  lapsed: boolean
}
export interface OrderQuotes {
  rows: QuoteRow[]
  /** What to begin an ask with. */
  proposed: { wanted: string; dueAt: Instant }
  mayAsk: boolean
}

const ofOrder = { orderId: field.id().required() }
export const readQuotes = endpoint<{ orderId: number }, OrderQuotes>({
  method: 'GET',
  path: '/api/orders/:orderId/quotes',
  says: 'Prices vendors were asked for on an order, the cheapest first.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>(ofOrder),
})

interface Ask {
  orderId: number
  vendorIds: number[]
  wanted: string
  dueAt: string
}
export const askQuotes = endpoint<Ask, OrderQuotes>({
  method: 'POST',
  path: '/api/orders/:orderId/quotes',
  says: 'Ask vendors for a price by mail; they see what is wanted and where, and nothing else of the order.',
  may: 'orders.edit',
  input: Joi.object<Ask, true>({
    ...ofOrder,
    vendorIds: Joi.array().items(field.id()).unique().min(1).max(MOST_ASKED).required(),
    wanted: field.words(4000).required(),
    dueAt: field.instant().required(),
  }),
})

interface Of {
  id: number
  version: number
}
const of = { id: field.id().required(), version: field.version().required() }
export const withdrawQuote = endpoint<Of, OrderQuotes>({
  method: 'POST',
  path: '/api/quotes/:id/withdraw',
  says: 'No price is needed any more from one vendor; they are told.',
  may: 'orders.edit',
  input: Joi.object<Of, true>(of),
})
export const takeQuote = endpoint<Of, OrderQuotes>({
  method: 'POST',
  path: '/api/quotes/:id/take',
  says: 'Take one price: its vendor is named on the order, and the others are told that they are not needed.',
  may: 'orders.edit',
  input: Joi.object<Of, true>(of),
})

/** What a vendor sees of it, by their link alone. */
export interface QuotePage {
  site: { name: string; deskPhone: string; zone: string; currency: string; writing: SiteWriting }
  number: string
  vendor: string
  wanted: string
  place: string | null
  dueAt: Instant
  state: QuoteState
  netMinor: number | null
  taxBp: number | null
  earliestAt: Instant | null
  validUntil: string | null
  answer: string | null
  /** Why nothing can be answered any more, or null while it can. */
  over: string | null
}
const byToken = { token: field.token().required() }
export const readQuotePage = endpoint<{ token: string }, QuotePage>({
  method: 'GET',
  path: '/api/quote/:token',
  says: 'What a vendor is asked a price for, by the link mailed to them.',
  may: 'vendor',
  input: Joi.object<{ token: string }, true>(byToken),
})
interface Price {
  token: string
  netMinor: number
  taxBp: number
  earliestAt?: string | null
  validUntil?: string | null
  note?: string
}
export const namePrice = endpoint<Price, QuotePage>({
  method: 'POST',
  path: '/api/quote/:token/price',
  says: 'Name a price, or change the one named.',
  may: 'vendor',
  input: Joi.object<Price, true>({
    ...byToken,
    netMinor: field.minor().min(1).max(1_000_000_000).required(),
    taxBp: Joi.number().integer().min(0).max(10_000).required(),
    earliestAt: field.instant().allow(null),
    validUntil: field.day().allow(null),
    note: field.words(1000).allow(''),
  }),
})
export const nameNone = endpoint<{ token: string; note: string }, QuotePage>({
  method: 'POST',
  path: '/api/quote/:token/decline',
  says: 'Say that there will be no price, and why.',
  may: 'vendor',
  input: Joi.object<{ token: string; note: string }, true>({ ...byToken, note: field.line(300).required() }),
})
