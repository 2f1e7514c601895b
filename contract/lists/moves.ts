import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Reason } from '#core/kit'
import { BULK_ORDER_MOVES, BULK_REQUEST_MOVES } from '#core/lists'
import type { BulkOrderMove, BulkRequestMove } from '#core/lists'
import { HOLD_REASONS } from '#core/orders'
import type { HoldReason } from '#core/orders'

/** How one row of several fared. */
export interface BulkRow {
  id: number
  number: string
  moved: boolean
  state: string
  version: number
  reasons: Reason[]
}

export interface BulkAnswer {
  rows: BulkRow[]
}

const MOST = 200
const items = Joi.array()
  .items(Joi.object({ id: field.id().required(), version: field.version().required() }))
  .min(1)
  .max(MOST)
  .unique('id')
  .required()
interface Items {
  items: { id: number; version: number }[]
  reason?: string
}

export const moveOrders = endpoint<Items & { move: BulkOrderMove; holdReason?: HoldReason }, BulkAnswer>({
  method: 'POST',
  path: '/api/lists/orders/moves',
  says: 'Make the same move of several orders: each under its own rules, with a result for each.',
  may: 'desk.read',
  input: Joi.object<Items & { move: BulkOrderMove; holdReason?: HoldReason }, true>({
    items,
    move: field.oneOf(BULK_ORDER_MOVES).required(),
    reason: field.words(500).allow(''),
    holdReason: field.oneOf(HOLD_REASONS).when('move', { is: 'hold', then: Joi.required() }),
  }),
})

/** What has to be written for a move of these orders: for all of them, when any needs it. */
export interface NeededForAll {
  needed: boolean
  answers: string[]
}

export const readNeededReason = endpoint<{ move: BulkOrderMove; ids: string }, NeededForAll>({
  method: 'GET',
  path: '/api/lists/orders/needed-reason',
  says: 'Whether a move of these orders needs a written reason, so that it is asked for before the press.',
  may: 'desk.read',
  input: Joi.object<{ move: BulkOrderMove; ids: string }, true>({
    move: field.oneOf(BULK_ORDER_MOVES).required(),
    /** Ids with commas between. */
    ids: Joi.string()
      .pattern(/^\d{1,9}(,\d{1,9}){0,199}$/)
      .required(),
  }),
})

export const moveRequests = endpoint<Items & { move: BulkRequestMove }, BulkAnswer>({
  method: 'POST',
  path: '/api/lists/requests/moves',
  says: 'Make the same move of several requests: each under its own rules, with a result for each.',
  may: 'requests.triage',
  input: Joi.object<Items & { move: BulkRequestMove }, true>({ items, move: field.oneOf(BULK_REQUEST_MOVES).required(), reason: field.words(2000).allow('') }),
})
