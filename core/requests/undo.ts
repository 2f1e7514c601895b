import type { Reason } from '#core/kit'
import type { RequestMove } from './lifecycle'

/** An outcome of a request that can be taken back, and everything that happened since, oldest first. */
export interface OutcomeFacts {
  move: Extract<RequestMove, 'accept' | 'ask' | 'decline' | 'join'> | 'another'
  accountId: number | null
  /** What happened to the request and to the order it led to, after the outcome itself; `acted` where a person did it, not the clock. */
  since: { accountId: number | null; who: string; acted: boolean }[]
  /** The order it led to, unless it joined one that was there. */
  order: { number: string; state: string; recorded: boolean } | null
}

/**
 * Why the person asking cannot take an outcome back: only who gave it can, until somebody else has acted
 * on the request or its order. Empty when they can.
 */
export function undoReasons(outcome: OutcomeFacts, me: number): Reason[] {
  if (outcome.accountId !== me) return [{ code: 'not_yours', sentence: 'Only who decided it can take it back.' }]
  const other = outcome.since.find((event) => event.acted && event.accountId !== me)
  if (other) return [{ code: 'acted_on', sentence: `${other.who} has acted on it since, so it stays.` }]
  const { order } = outcome
  if (order && order.state !== 'draft')
    return [{ code: 'order_moved', sentence: `${order.number} has gone on since; send it back or cancel it instead.`, field: 'order' }]
  if (order?.recorded) return [{ code: 'order_recorded', sentence: `Work was recorded on ${order.number}, so it stays.`, field: 'order' }]
  return []
}
