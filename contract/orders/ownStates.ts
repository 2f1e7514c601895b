import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Done } from '#contract/kit'
import { OWN_MARKS, OWN_STATE_UNDER } from '#core/orders'
import type { OrderState, OwnMark, OwnState } from '#core/orders'

export interface OwnStateRow extends OwnState {
  version: number
  retired: boolean
  /** How many orders are in it. */
  orders: number
}

export const listOwnStates = endpoint<object, { rows: OwnStateRow[] }>({
  method: 'GET',
  path: '/api/own-states',
  says: 'The states sites have added under ours, with how many orders are in each.',
  may: 'desk.read',
})

interface NewOwnState {
  siteId: number
  under: OrderState
  name: string
  mark: OwnMark
}

export const addOwnState = endpoint<NewOwnState, { rows: OwnStateRow[] }>({
  method: 'POST',
  path: '/api/own-states',
  says: 'Add a state of a site under one of ours.',
  may: 'setup.edit',
  input: Joi.object<NewOwnState, true>({
    siteId: field.id().required(),
    under: field.oneOf(OWN_STATE_UNDER).required(),
    name: field.line(40).required(),
    mark: field.oneOf(OWN_MARKS).required(),
  }),
})

interface OwnStateEdit {
  id: number
  version: number
  name?: string
  mark?: OwnMark
  /** Taken out of use, or back; orders in it stay in it until they move on. */
  retired?: boolean
}

export const editOwnState = endpoint<OwnStateEdit, { rows: OwnStateRow[] }>({
  method: 'PATCH',
  path: '/api/own-states/:id',
  says: 'Call an own state otherwise, give it another mark, or take it out of use.',
  may: 'setup.edit',
  input: Joi.object<OwnStateEdit, true>({
    id: field.id().required(),
    version: field.version().required(),
    name: field.line(40),
    mark: field.oneOf(OWN_MARKS),
    retired: Joi.boolean(),
  }),
})

interface OwnStateSet {
  id: number
  version: number
  ownStateId: number | null
}

export const setOwnState = endpoint<OwnStateSet, Done>({
  method: 'POST',
  path: '/api/orders/:id/own-state',
  says: 'Say more exactly how an order stands, by a state of the site’s own under the one it is in; or no longer.',
  may: 'orders.edit',
  input: Joi.object<OwnStateSet, true>({ id: field.id().required(), version: field.version().required(), ownStateId: field.id().allow(null).required() }),
})
