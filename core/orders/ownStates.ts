import { isSettled, ORDER_STATES } from './states'
import type { OrderState } from './states'

/** Marks of own states: shapes, never colours. */
export const OWN_MARKS = ['dot', 'ring', 'square', 'frame', 'triangle', 'diamond', 'bars', 'cross'] as const
export type OwnMark = (typeof OWN_MARKS)[number]
export const OWN_MARK_NAMES: Record<OwnMark, string> = {
  dot: 'Dot',
  ring: 'Ring',
  square: 'Square',
  frame: 'Frame',
  triangle: 'Triangle',
  diamond: 'Diamond',
  bars: 'Bars',
  cross: 'Cross',
}

/** States of ours a site can tell apart further: all in which something can still happen. */
export const OWN_STATE_UNDER: readonly OrderState[] = ORDER_STATES.filter((state) => !isSettled(state))

/** How many a site can have under one of ours. */
export const MOST_OWN_STATES = 12

/** A state of a site's own, under one of ours: it says more exactly how an order stands, and changes no rule. */
export interface OwnState {
  id: number
  siteId: number
  under: OrderState
  name: string
  mark: OwnMark
}

/** Those an order of this site can be in while it is in this state of ours. */
export const ownStatesUnder = <One extends Pick<OwnState, 'siteId' | 'under'>>(all: readonly One[], siteId: number, state: OrderState): One[] =>
  all.filter((one) => one.siteId === siteId && one.under === state)
