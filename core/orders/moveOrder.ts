import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import type { OrderFacts } from './facts'
import { ORDER_MOVES } from './lifecycle'
import type { OrderMoveRule } from './lifecycle'
import type { OrderMove } from './moveNames'
import { reasonProblems } from './reasonRules'
import { ORDER_STATE_NAMES } from './states'
import type { OrderState } from './states'

/** Why this move is not possible now; empty when it is. Permission is the runner's question. */
export function orderMoveReasons(facts: OrderFacts, move: OrderMove): Reason[] {
  const rule = ORDER_MOVES[move]
  if (facts.discarded) return [{ code: 'discarded', sentence: 'The draft was discarded; bring it back first.' }]
  if (!rule.from.includes(facts.state))
    return [
      {
        code: 'wrong_state',
        sentence: `The order is ${ORDER_STATE_NAMES[facts.state].toLowerCase()}; “${rule.label}” needs it to be ${rule.from.map((state) => ORDER_STATE_NAMES[state].toLowerCase()).join(' or ')}.`,
      },
    ]
  return rule.needs.flatMap((need) => need(facts))
}

/**
 * The state after a move.
 * @throws Refusal with every reason the move is not possible, or for a missing written reason
 */
export function moveOrder(facts: OrderFacts, move: OrderMove, written: string | null): OrderState {
  const reasons = orderMoveReasons(facts, move)
  if (reasons.length) throw new Refusal(reasons)
  const rule = ORDER_MOVES[move]
  const unwritten = reasonProblems(facts, move, written)
  if (unwritten.length) throw new Refusal(unwritten)
  return typeof rule.to === 'function' ? rule.to(facts) : rule.to
}

/** The moves worth showing in this state, possible or not, with the reasons why not. */
export function offeredMoves(facts: OrderFacts, at: OrderMoveRule['at'] = 'desk'): { move: OrderMove; rule: OrderMoveRule; reasons: Reason[] }[] {
  if (facts.discarded) return []
  return (Object.entries(ORDER_MOVES) as [OrderMove, OrderMoveRule][])
    .filter(([, rule]) => rule.at === at && rule.from.includes(facts.state))
    .map(([move, rule]) => ({ move, rule, reasons: orderMoveReasons(facts, move) }))
}
