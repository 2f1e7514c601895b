import Joi from 'joi'
import type { FindingPin } from '#contract/field'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { MOST_AT_ONCE } from '#core/findings'
import type { FindingSeverity, FindingState } from '#core/findings'
import type { OrderState } from '#core/orders'

/** A finding as the desk decides about it. */
export interface FindingRow {
  id: number
  text: string
  severity: FindingSeverity
  where: string | null
  placeId: number | null
  assetId: number | null
  pin: FindingPin | null
  photos: { id: number }[]
  at: Instant
  who: string
  state: FindingState
  foundOn: { id: number; number: string }
  /** The order that answers it. */
  answeredBy: { id: number; number: string; state: OrderState } | null
  setAside: { by: string; at: Instant; reason: string } | null
}

export const listFindings = endpoint<{ after?: number }, { rows: FindingRow[]; next: number | null }>({
  method: 'GET',
  path: '/api/findings',
  says: 'Findings that wait for an order, the oldest first, page by page.',
  may: 'desk.read',
  input: Joi.object<{ after?: number }, true>({ after: field.id() }),
})

export interface OrderFindings {
  found: FindingRow[]
  answers: FindingRow[]
}
export const readOrderFindings = endpoint<{ orderId: number }, OrderFindings>({
  method: 'GET',
  path: '/api/orders/:orderId/findings',
  says: 'What was found on an order, and what was found elsewhere that it answers.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>({ orderId: field.id().required() }),
})

const ids = () => Joi.array().items(field.id().required()).min(1).max(MOST_AT_ONCE).unique().messages({ 'array.min': 'Choose findings first.' })

/** Findings of one group go into one order. */
interface Grouped {
  groups: number[][]
}
export const makeFindingOrders = endpoint<Grouped, { orders: { id: number; number: string }[] }>({
  method: 'POST',
  path: '/api/findings/orders',
  says: 'Make drafts of findings: one order for each group of them.',
  may: 'orders.edit',
  input: Joi.object<Grouped, true>({ groups: Joi.array<number[][]>().items(ids().required()).min(1).max(MOST_AT_ONCE).required() as never }),
})

interface JoinFindings {
  ids: number[]
  /** The number of an order that is not over. */
  order: string
}
export const joinFindings = endpoint<JoinFindings, { id: number; number: string }>({
  method: 'POST',
  path: '/api/findings/join',
  says: 'Have an order that is not over answer findings.',
  may: 'orders.edit',
  input: Joi.object<JoinFindings, true>({ ids: ids().required() as never, order: field.line(20).required().messages({ 'string.empty': 'Name the order.' }) }),
})

interface SetAside {
  ids: number[]
  reason: string
}
export const setFindingsAside = endpoint<SetAside, { rows: FindingRow[] }>({
  method: 'POST',
  path: '/api/findings/set-aside',
  says: 'Set findings aside: nothing is to be done about them, and why.',
  may: 'orders.edit',
  input: Joi.object<SetAside, true>({
    ids: ids().required() as never,
    reason: field.line(300).required().messages({ 'any.required': 'Say why.', 'string.empty': 'Say why.' }),
  }),
})

export const takeUpFinding = endpoint<{ id: number }, FindingRow>({
  method: 'POST',
  path: '/api/findings/:id/take-up',
  says: 'Have a finding wait for an order again: one that was set aside, or one whose order has not begun.',
  may: 'orders.edit',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
