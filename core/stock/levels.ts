import Big from 'big.js'
import { roundHalfUp } from '#core/kit'
import type { Minor } from '#core/kit'

/** What can happen to a part in a store. A transfer is two movements: out of one store, into another. */
export const MOVEMENT_KINDS = ['receipt', 'issue', 'return', 'transfer', 'correction'] as const
export type MovementKind = (typeof MOVEMENT_KINDS)[number]
export const MOVEMENT_NAMES: Record<MovementKind, string> = {
  receipt: 'Receipt',
  issue: 'Issue',
  return: 'Return',
  transfer: 'Transfer',
  correction: 'Correction',
}

/** What a coordinator can do with stock: a count becomes a correction by what was found. */
export const STOCK_ACTS = ['receipt', 'issue', 'return', 'transfer', 'count'] as const
export type StockAct = (typeof STOCK_ACTS)[number]
export const STOCK_ACT_NAMES: Record<StockAct, string> = {
  receipt: 'Receive',
  issue: 'Issue to an order',
  return: 'Return from an order',
  transfer: 'Transfer to another store',
  count: 'Count',
}

/**
 * What is left for somebody: what lies there without what is kept for others. Decimal texts with at most three
 * places; never below nought.
 */
export function freeOf(onHand: string, reservedByOthers: string): string {
  const left = new Big(onHand).minus(reservedByOthers)
  return left.lt(0) ? '0' : left.toString()
}

/**
 * The moving average after something came in at a price: the weighted average of what was there and what came (the
 * weighted average cost formula of IAS 2, paragraph 27; from memory), rounded half up to the minor unit. What lies
 * there at nought or less counts for nothing.
 * @param received above nought
 */
export function averageAfter(onHand: string, average: Minor, received: string, price: Minor): Minor {
  const before = new Big(onHand)
  if (before.lte(0)) return price
  const came = new Big(received)
  return roundHalfUp(before.times(average).plus(came.times(price)).div(before.plus(came)))
}
