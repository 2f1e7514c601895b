import Big from 'big.js'
import { formatMinor, lineAmount } from '#core/kit'
import type { Minor, Reason } from '#core/kit'

/** Asked for by somebody, ordered at a vendor, all there; or called off, also after a part of it came. */
export const PURCHASE_STATES = ['asked', 'ordered', 'received', 'cancelled'] as const
export type PurchaseState = (typeof PURCHASE_STATES)[number]
export const PURCHASE_STATE_NAMES: Record<PurchaseState, string> = { asked: 'Asked for', ordered: 'Ordered', received: 'Received', cancelled: 'Called off' }

export interface PurchaseLineFacts {
  /** Decimal texts with at most three places. */
  quantity: string
  received: string
  priceMinor: Minor | null
}

/** What is still to come of a line; never below nought. */
export function toCome({ quantity, received }: Pick<PurchaseLineFacts, 'quantity' | 'received'>): string {
  const left = new Big(quantity).minus(received)
  return left.lt(0) ? '0' : left.toString()
}

/** Whether all of it is there. */
export const isAllThere = (lines: readonly Pick<PurchaseLineFacts, 'quantity' | 'received'>[]): boolean => lines.every((line) => toCome(line) === '0')

/** What the lines come to that have a price, in minor units. */
export const purchaseTotal = (lines: readonly PurchaseLineFacts[]): Minor =>
  lines.reduce((sum, { quantity, priceMinor }) => sum + (priceMinor === null ? 0 : lineAmount(quantity, priceMinor)), 0)

/** Why a purchase cannot be ordered as it stands; empty when it can. */
export function orderingReasons(purchase: { state: PurchaseState; vendorId: number | null; lines: readonly PurchaseLineFacts[] }): Reason[] {
  const { state, vendorId, lines } = purchase
  if (state !== 'asked') return [{ code: 'wrong_state', sentence: `It is ${PURCHASE_STATE_NAMES[state].toLowerCase()} already.` }]
  return [
    ...(vendorId === null ? [{ code: 'vendor_missing', sentence: 'Choose the vendor it is ordered at.', field: 'vendorId' }] : []),
    ...(lines.length ? [] : [{ code: 'lines_missing', sentence: 'Nothing is on it yet: add a part.', field: 'lines' }]),
  ]
}

/** How a bill differs from what was received, in a sentence; null when it does not. */
export function billDifference(billMinor: Minor, lines: readonly PurchaseLineFacts[]): string | null {
  const received = purchaseTotal(lines.map((line) => ({ ...line, quantity: line.received })))
  if (billMinor === received) return null
  const apart = formatMinor(Math.abs(billMinor - received))
  return `The bill is ${apart} ${billMinor > received ? 'more' : 'less'} than what was received at its prices, ${formatMinor(received)}.`
}
