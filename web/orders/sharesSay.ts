import type { OrderSheet } from '#contract/orders'
import { writtenAs } from '#web/kit'

/** Who pays, in words: one payer by name, several each with their share. */
export function sharesSay(shares: OrderSheet['shares']): string | null {
  if (!shares.length) return null
  return shares
    .map(({ payerCode, payerName, shareBp }) => `${payerCode} ${payerName}${shares.length > 1 ? ` ${writtenAs('percent', shareBp)} %` : ''}`)
    .join(', ')
}
