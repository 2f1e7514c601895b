import { WHOLE } from '#core/kit'
import type { Reason } from '#core/kit'
import type { OrderFacts } from './facts'

/** Shares are whole: somebody pays all of it. */
export function sharesWhole(facts: OrderFacts): Reason[] {
  if (!facts.shares.length) return [{ code: 'payer_missing', sentence: 'Choose who pays.', field: 'shares' }]
  const sum = facts.shares.reduce((total, share) => total + share.shareBp, 0)
  return sum === WHOLE ? [] : [{ code: 'shares_not_whole', sentence: `The shares add to ${sum / 100} %, not 100 %.`, field: 'shares' }]
}
