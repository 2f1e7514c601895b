import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { GaugeTarget, Instant } from '#contract/kit'
import type { AgreedWindow } from '#contract/orders'
import { BOARD_DAYS } from '#core/board'
import type { BoardDays } from '#core/board'
import type { VisitAnswer, VisitKind } from '#core/dispatch'
import type { ReadyLine } from '#core/methods'
import type { HoldReason, OrderState } from '#core/orders'
import type { HeldSkill } from '#core/people'
import type { Priority } from '#core/requests'

export interface BoardSpan {
  from: Instant
  until: Instant
}

/** A visit as it is drawn: planned, running, or over. */
export interface BoardVisit extends BoardSpan {
  id: number
  version: number
  orderId: number
  orderVersion: number
  number: string
  summary: string
  placeCode: string | null
  /** Of the place in the tree, for the way to it. */
  path: string | null
  tradeId: number | null
  trade: string | null
  /** What whoever goes has to be able to do besides, by name. */
  skills: string[]
  priority: Priority | null
  kind: VisitKind
  state: 'planned' | 'on_site' | 'ended'
  /** Of a vendor: what they said to being sent, and the time they proposed. */
  answer: VisitAnswer | null
  proposed: { start: Instant; end: Instant; note: string | null } | null
  /** The time agreed with whoever lets people in. */
  window: AgreedWindow | null
  /** It begins outside of that. */
  outside: boolean
  target: GaugeTarget
  /** Until when it has to be completed. */
  dueAt: Instant | null
}
export interface BoardPerson {
  /** The technician’s. */
  id: number
  personId: number
  name: string
  team: string
  trades: string[]
  tradeIds: number[]
  skills: HeldSkill[]
  shifts: BoardSpan[]
  /** On leave; why is nobody’s business here. */
  away: BoardSpan[]
  onCall: BoardSpan[]
  visits: BoardVisit[]
}
export interface BoardVendor {
  id: number
  name: string
  visits: BoardVisit[]
}

/** Work that nobody is planned for, with what stands between it and dispatch. */
export interface WaitingOrder {
  id: number
  version: number
  number: string
  summary: string
  state: OrderState
  holdReason: HoldReason | null
  placeCode: string | null
  path: string | null
  tradeId: number | null
  trade: string | null
  /** For how long whoever goes is planned to be there, and how many go at once. */
  minutes: number
  people: number
  skills: string[]
  priority: Priority | null
  target: GaugeTarget
  dueAt: Instant | null
  window: AgreedWindow | null
  ready: ReadyLine[]
}
export interface Board {
  zone: string
  /** The days shown, the first and the last among them. */
  first: string
  last: string
  days: BoardDays
  hours: { from: number; to: number }
  now: Instant
  people: BoardPerson[]
  vendors: BoardVendor[]
  waiting: WaitingOrder[]
  /** What is known of the ways between all these places. */
  ways: { at: [number, number, number][]; on: [number, number, number][]; said: [number, number, number][] }
}

interface Asked {
  siteId: number
  first?: string
  days?: BoardDays
}
export const readBoard = endpoint<Asked, Board>({
  method: 'GET',
  path: '/api/board/:siteId',
  says: 'People against time, and the work that nobody is planned for, with what stands between it and dispatch.',
  may: 'desk.read',
  input: Joi.object<Asked, true>({ siteId: field.id().required(), first: field.day(), days: Joi.number().valid(...BOARD_DAYS) }),
})

/** A visit that is planned, at another time or with somebody else. */
export interface VisitChange {
  visitId: number
  version: number
  /** Who goes instead; whoever went before when it is left out. */
  technicianId?: number
  start: Instant
  end: Instant
}
/** One more visit: the first of an order that waits sends it out. */
export interface VisitAdded {
  orderId: number
  version: number
  technicianId: number
  start: Instant
  end: Instant
}
/** A visit that is not made; the last of an order brings it back to the desk. */
export interface VisitDropped {
  visitId: number
  version: number
}
/** Changes on the Board that are made together or not at all. */
export interface Rearrangement {
  siteId: number
  changes?: VisitChange[]
  adds?: VisitAdded[]
  drops?: VisitDropped[]
  /** Why it is so although something speaks against it. */
  despite?: string
}
export interface Rearranged {
  /** What puts everything back as it was, as long as nobody changes it again. */
  undo: Required<Pick<Rearrangement, 'siteId' | 'changes' | 'adds' | 'drops'>>
}

const between = { start: field.instant().required(), end: field.instantAfter('start', 'It ends after it starts.').required() }
const many = (one: Joi.ObjectSchema) => Joi.array().items(one).max(200)
export const rearrange = endpoint<Rearrangement, Rearranged>({
  method: 'POST',
  path: '/api/board/:siteId/rearrange',
  says: 'Move, hand over, add and take back visits, all of it or nothing; what speaks against it wants a reason.',
  may: 'orders.dispatch',
  input: Joi.object<Rearrangement, true>({
    siteId: field.id().required(),
    changes: many(Joi.object({ visitId: field.id().required(), version: field.version().required(), technicianId: field.id(), ...between })).unique('visitId'),
    adds: many(Joi.object({ orderId: field.id().required(), version: field.version().required(), technicianId: field.id().required(), ...between })),
    drops: many(Joi.object({ visitId: field.id().required(), version: field.version().required() })).unique('visitId'),
    despite: field.words(300).allow(''),
  }),
})

/** What is worth knowing of somebody before more is given to them. */
export interface BoardPersonSays {
  id: number
  name: string
  /** Minutes of the week: at work by shift, planned, and of those promised to somebody. */
  week: { first: string; last: string; shiftMinutes: number; plannedMinutes: number; promisedMinutes: number; freeMinutes: number }
  /** Where they are, as far as is known: what they work on. */
  at: { orderId: number; number: string; place: string | null; since: Instant } | null
  skills: { name: string; until: string | null; over: boolean }[]
  /** Assets they worked on within twelve months, the last first. */
  knows: { assetId: number; tag: string; name: string; times: number; last: Instant }[]
}
export const readBoardPerson = endpoint<{ siteId: number; technicianId: number; day?: string }, BoardPersonSays>({
  method: 'GET',
  path: '/api/board/:siteId/people/:technicianId',
  says: 'The week of a technician in hours, where they are, what they may do and which assets they know.',
  may: 'desk.read',
  input: Joi.object<{ siteId: number; technicianId: number; day?: string }, true>({
    siteId: field.id().required(),
    technicianId: field.id().required(),
    day: field.day(),
  }),
})

/** Who could do it within the days shown, the best first. */
export interface BestFit {
  technicianId: number
  name: string
  start: Instant
  end: Instant
  /** Why they are placed where they are. */
  because: string[]
}
export const listBestFits = endpoint<{ siteId: number; orderId: number; first?: string; days?: BoardDays }, { rows: BestFit[] }>({
  method: 'GET',
  path: '/api/board/:siteId/orders/:orderId/fits',
  says: 'Who fits an order best and when, within the days shown, in order and with the reasons.',
  may: 'orders.dispatch',
  input: Joi.object<{ siteId: number; orderId: number; first?: string; days?: BoardDays }, true>({
    siteId: field.id().required(),
    orderId: field.id().required(),
    first: field.day(),
    days: Joi.number().valid(...BOARD_DAYS),
  }),
})
