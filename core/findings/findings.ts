import { refuse, Refusal } from '#core/kit'
import { isFinished } from '#core/orders'
import type { OrderState } from '#core/orders'

/** Where a finding stands. Nobody says it: it follows from what became of it. */
export const FINDING_STATES = ['open', 'ordered', 'cleared', 'fixed', 'aside'] as const
export type FindingState = (typeof FINDING_STATES)[number]
export const FINDING_STATE_NAMES: Record<FindingState, string> = {
  open: 'Waits for an order',
  ordered: 'In an order',
  cleared: 'Cleared',
  fixed: 'Fixed at once',
  aside: 'Set aside',
}

/** How many are decided about in one act. */
export const MOST_AT_ONCE = 100

export interface FindingFacts {
  /** Whoever found it put it right there and then. */
  fixedNow: boolean
  setAsideAt: Date | string | null
  /** The order that answers it. */
  order: { state: OrderState; discarded: boolean } | null
}

/**
 * An order that answers a finding clears it once the work is finished; one that was called off or discarded answers
 * nothing any more, and the finding waits again.
 */
export function findingState({ fixedNow, setAsideAt, order }: FindingFacts): FindingState {
  if (fixedNow) return 'fixed'
  if (setAsideAt) return 'aside'
  if (!order || order.discarded || order.state === 'cancelled') return 'open'
  return isFinished(order.state) ? 'cleared' : 'ordered'
}

/** @throws Refusal, with how many, where one of them does not wait for an order */
export function mustBeOpen(findings: readonly FindingFacts[]): void {
  const over = findings.filter((one) => findingState(one) !== 'open').length
  if (!over) return
  const sentence =
    findings.length === 1
      ? 'This finding does not wait for an order any more.'
      : `${over} of these findings ${over === 1 ? 'does' : 'do'} not wait for an order any more. Choose again.`
  throw new Refusal([{ code: 'finding_over', sentence, field: 'ids' }])
}

/** Whether it may wait for an order again: it was set aside, or nothing has begun on the order that answers it. */
export const mayTakeUp = (state: FindingState, answering: OrderState | null): boolean =>
  state === 'aside' || (state === 'ordered' && answering !== null && ['draft', 'to_approve', 'ready'].includes(answering))

/** @throws Refusal for what never waited, and for one whose order has begun: the order is to say that it is not needed */
export function refuseTakeUp(finding: FindingFacts): void {
  const state = findingState(finding)
  if (mayTakeUp(state, finding.order?.state ?? null)) return
  if (state === 'ordered') refuse('order_begun', 'The order that answers it has begun. Cancel that, and the finding waits again.')
  refuse('finding_over', state === 'open' ? 'It waits for an order already.' : 'It is put right already.')
}

/** What whoever found it may still take back: the desk has done nothing with it yet. */
export const mayTakeBack = (finding: FindingFacts): boolean => ['open', 'fixed'].includes(findingState(finding))
