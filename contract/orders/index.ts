import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Done, Instant, ListLine, Page } from '#contract/kit'
import type { OrderSheet } from './sheet'
import { HOLD_REASONS, ORDER_KINDS, ORDER_STATES, ORDER_STATIONS } from '#core/orders'
import type { HoldReason, OrderKind, OrderState, Station } from '#core/orders'
import { CONSEQUENCES, LIKELIHOODS, PRIORITIES, SEVERITIES, URGENCIES } from '#core/requests'
import type { Consequence, Likelihood, Priority, Severity, Urgency } from '#core/requests'
export * from './ownStates'

export * from './promises'

export * from './ruleSections'

export * from './sheet'

/** An order as queues and lists show it. */
export interface OrderLine extends ListLine {
  state: OrderState
  heldFrom: OrderState | null
  kind: OrderKind
  trade: string | null
  team: string | null
  lead: string | null
  supervisor: string | null
  who: string | null
  estimate: number | null
  currency: string
  created: Instant
  start: Instant | null
  finished: Instant | null
  closed: Instant | null
  hold: HoldReason | null
  /** The state of its own it is in. */
  ownstate: string | null
  contact: string | null
  archived: boolean
  discarded: boolean
}

export type OrderSort = 'due' | 'priority' | 'newest'

export interface ListOrdersInput {
  station?: Station
  state?: OrderState
  priority?: Priority
  sort?: OrderSort
  q?: string
  after?: string
  limit?: number
  placeId?: number
  assetId?: number
}

export const listOrders = endpoint<ListOrdersInput, Page<OrderLine>>({
  method: 'GET',
  path: '/api/orders',
  says: 'Orders, keyset-paged.',
  may: 'desk.read',
  input: Joi.object<ListOrdersInput, true>({
    station: field.oneOf(ORDER_STATIONS),
    state: field.oneOf(ORDER_STATES),
    priority: field.oneOf(PRIORITIES),
    sort: field.oneOf(['due', 'priority', 'newest']),
    q: field.search(),
    after: Joi.string().max(120),
    limit: field.limit(),
    placeId: field.id(),
    assetId: field.id(),
  }),
})

const byId = { id: field.id().required() }
const byVersion = { ...byId, version: field.version().required() }

export interface OrderFields {
  kind?: OrderKind
  summary?: string
  description?: string
  placeId?: number | null
  assetId?: number | null
  categoryId?: number | null
  tradeId?: number | null
  teamId?: number | null
  leadId?: number | null
  supervisorId?: number | null
  vendorId?: number | null
  consequence?: Consequence | null
  urgency?: Urgency | null
  hazardSeverity?: Severity | 'none' | null
  hazardLikelihood?: Likelihood | null
  estimateMinor?: number | null
  contactName?: string | null
  contactPhone?: string | null
  access?: string | null
  noteForWorker?: string | null
  noteForPayer?: string | null
  outsideReference?: string | null
  symptom?: string | null
  cause?: string | null
  fix?: string | null
  shares?: { payerId: number; shareBp: number }[]
}

const textOrNull = (max: number) => field.words(max).allow('', null)

export const editOrder = endpoint<{ id: number; version: number } & OrderFields, OrderSheet>({
  method: 'PATCH',
  path: '/api/orders/:id',
  says: 'Change what an order says. Once approved, what was agreed to stays.',
  may: 'orders.edit',
  input: Joi.object<{ id: number; version: number } & OrderFields, true>({
    ...byVersion,
    kind: field.oneOf(ORDER_KINDS),
    summary: field.line(),
    description: field.words().min(1),
    placeId: field.id().allow(null),
    assetId: field.id().allow(null),
    categoryId: field.id().allow(null),
    tradeId: field.id().allow(null),
    teamId: field.id().allow(null),
    leadId: field.id().allow(null),
    supervisorId: field.id().allow(null),
    vendorId: field.id().allow(null),
    consequence: field.oneOf(CONSEQUENCES).allow(null),
    urgency: field.oneOf(URGENCIES).allow(null),
    hazardSeverity: field.oneOf([...SEVERITIES, 'none']).allow(null),
    hazardLikelihood: field.oneOf(LIKELIHOODS).allow(null),
    estimateMinor: field.minor().allow(null),
    contactName: textOrNull(120),
    contactPhone: textOrNull(40),
    access: textOrNull(2000),
    noteForWorker: textOrNull(2000),
    noteForPayer: textOrNull(2000),
    outsideReference: textOrNull(80),
    symptom: textOrNull(80),
    cause: textOrNull(80),
    fix: textOrNull(80),
    shares: Joi.array()
      .max(20)
      .unique('payerId')
      .items(Joi.object({ payerId: field.id().required(), shareBp: Joi.number().integer().min(1).max(10_000).required() })),
  }),
})

const move = (path: string, says: string, may: 'orders.edit' | 'orders.discard' | 'orders.approve' | 'orders.dispatch' | 'orders.check' | 'ledger.post') =>
  endpoint<{ id: number; version: number; reason?: string; ownStateId?: number }, Done>({
    method: 'POST',
    path: `/api/orders/:id/${path}`,
    says,
    may,
    input: Joi.object<{ id: number; version: number; reason?: string; ownStateId?: number }, true>({
      ...byVersion,
      reason: field.words(500).allow(''),
      /** A state of the site's own, under the one the move leads to. */
      ownStateId: field.id(),
    }),
  })

export const submitOrder = move('submit', 'Submit a complete order for approval.', 'orders.edit')
export const approveOrder = move('approve', 'Approve an order so that it can be dispatched.', 'orders.approve')
export const sendBackOrder = move('send-back', 'Send an order back with what has to change.', 'orders.approve')
export const askAgainOrder = move('ask-again', 'Ask for approval of what an order has grown to.', 'orders.edit')
export const recallOrder = move('recall', 'Take an order back to the Desk; its planned visits end.', 'orders.dispatch')
export const resumeOrder = move('resume', 'Go on after a hold.', 'orders.dispatch')
export const reopenOrder = move('reopen', 'Open an order again that was done or cancelled.', 'orders.dispatch')
export const checkOrder = move('check', 'Say that everything is there to charge it.', 'orders.check')
export const closeOrder = move('close', 'Close an order that has nothing to charge.', 'ledger.post')
export const cancelOrder = move('cancel', 'Call an order off.', 'orders.edit')
export const discardOrder = move('discard', 'Discard a draft with nothing recorded on it.', 'orders.discard')
export const restoreOrder = move('restore', 'Bring a discarded draft or an archived order back.', 'orders.edit')
export const archiveOrder = move('archive', 'Take a closed or cancelled order out of the daily view.', 'orders.edit')
export const postOrder = move('post', 'Turn the costs of an order into charges, once.', 'ledger.post')
export const reverseOrder = move('reverse', 'Reverse the charges of an order.', 'ledger.post')

export const joinGroup = endpoint<{ id: number; version: number; leadId: number }, OrderSheet>({
  method: 'POST',
  path: '/api/orders/:id/group',
  says: 'Put an order under a lead order.',
  may: 'orders.edit',
  input: Joi.object<{ id: number; version: number; leadId: number }, true>({ ...byVersion, leadId: field.id().required() }),
})

export const leaveGroup = endpoint<{ id: number; version: number }, OrderSheet>({
  method: 'POST',
  path: '/api/orders/:id/leave-group',
  says: 'Take an order out of its group; it stays whole.',
  may: 'orders.edit',
  input: Joi.object<{ id: number; version: number }, true>(byVersion),
})

export const holdOrder = endpoint<{ id: number; version: number; holdReason: HoldReason; reason: string; ownStateId?: number }, Done>({
  method: 'POST',
  path: '/api/orders/:id/hold',
  says: 'Put an order on hold.',
  may: 'orders.dispatch',
  input: Joi.object<{ id: number; version: number; holdReason: HoldReason; reason: string; ownStateId?: number }, true>({
    ...byVersion,
    holdReason: field.oneOf(HOLD_REASONS).required(),
    reason: field.words(500).allow(''),
    ownStateId: field.id(),
  }),
})

export const readAttachment = endpoint<{ id: number; small?: boolean }, Blob>({
  method: 'GET',
  path: '/api/attachments/:id',
  says: 'A picture or document on a request or order.',
  may: 'self.read',
  answers: 'file',
  input: Joi.object<{ id: number; small?: boolean }, true>({ ...byId, small: Joi.boolean() }),
})
