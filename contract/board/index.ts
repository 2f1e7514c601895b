import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { GaugeTarget, Instant } from '#contract/kit'
import type { AgreedWindow } from '#contract/orders'
import { BOARD_DAYS } from '#core/board'
import type { BoardDays } from '#core/board'
import type { VisitKind } from '#core/dispatch'
import type { ReadyLine } from '#core/methods'
import type { HoldReason, OrderState } from '#core/orders'
import type { Priority } from '#core/requests'

export interface BoardSpan {
  from: Instant
  until: Instant
}

/** A visit as it is drawn: planned, running, or over. */
export interface BoardVisit extends BoardSpan {
  id: number
  orderId: number
  number: string
  summary: string
  placeCode: string | null
  priority: Priority | null
  kind: VisitKind
  state: 'planned' | 'on_site' | 'ended'
  /** The time agreed with whoever lets people in. */
  window: AgreedWindow | null
  /** It begins outside of that. */
  outside: boolean
  target: GaugeTarget
}
export interface BoardPerson {
  id: number
  name: string
  team: string
  trades: string[]
  shifts: BoardSpan[]
  /** On leave; why is nobody’s business here. */
  away: BoardSpan[]
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
  number: string
  summary: string
  state: OrderState
  holdReason: HoldReason | null
  placeCode: string | null
  trade: string | null
  priority: Priority | null
  target: GaugeTarget
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
