import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Done, Instant } from '#contract/kit'
import type { Fitness } from '#core/dispatch'
import type { Paper, Punctuality } from '#core/vendors'

export interface TechnicianChoice {
  id: number
  name: string
  team: string
  trades: string[]
  shift: string
  /** On call at that time, outside of their shift. */
  onCall: boolean
  fitness: Fitness
}

export interface VendorChoice {
  id: number
  name: string
  service: string | null
  hasTrade: boolean
  /** Insurance, licence and contract, as they stand on the day. */
  papers: Paper[]
  callOutMinor: number | null
  perHourMinor: number | null
  /** Of the last twelve months. */
  punctuality: Punctuality
}

export const listCandidates = endpoint<{ orderId: number; start: Instant; end: Instant }, { technicians: TechnicianChoice[]; vendors: VendorChoice[] }>({
  method: 'GET',
  path: '/api/orders/:orderId/candidates',
  says: 'Who could do it at that time, with trade, shift and load.',
  may: 'orders.dispatch',
  input: Joi.object<{ orderId: number; start: Instant; end: Instant }, true>({
    orderId: field.id().required(),
    start: field.instant().required(),
    end: field.instant().required(),
  }),
})

export interface DispatchOrder {
  id: number
  version: number
  technicianIds?: number[]
  vendorId?: number | null
  start: Instant
  end: Instant
  /** Why somebody goes though steps that have to be done first are open. */
  despiteSteps?: string
  /** Why somebody goes at another time than was agreed. */
  despiteWindow?: string
  /** Why a vendor is sent whose insurance or licence has ended. */
  despitePapers?: string
}

export const dispatchOrder = endpoint<DispatchOrder, Done>({
  method: 'POST',
  path: '/api/orders/:id/dispatch',
  says: 'Send technicians or a vendor at a time.',
  may: 'orders.dispatch',
  input: Joi.object<DispatchOrder, true>({
    id: field.id().required(),
    version: field.version().required(),
    technicianIds: Joi.array().items(field.id()).unique().max(10),
    vendorId: field.id().allow(null),
    start: field.instant().required(),
    end: field.instantAfter('start', 'It ends after it starts.').required(),
    despiteSteps: field.words(300).allow(''),
    despiteWindow: field.words(300).allow(''),
    despitePapers: field.words(300).allow(''),
  }),
})

interface TimeKept {
  visitId: number
  version: number
  note?: string
}
export const keepTime = endpoint<TimeKept, Done>({
  method: 'POST',
  path: '/api/visits/:visitId/keep-time',
  says: 'Keep to the time planned, though a vendor proposed another: they are asked again.',
  may: 'orders.dispatch',
  input: Joi.object<TimeKept, true>({ visitId: field.id().required(), version: field.version().required(), note: field.line(300).allow('') }),
})

export const revokePass = endpoint<{ id: number }, { id: number }>({
  method: 'POST',
  path: '/api/passes/:id/revoke',
  says: 'Make a vendor pass useless at once.',
  may: 'orders.dispatch',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export * from './ruleSections'
