import type { Reason } from '#core/kit'
import { conditionWords, meets } from './conditions'
import type { ConditionFacts, ConditionNames } from './conditions'
import type { OrderFacts } from './facts'
import { ORDER_MOVES } from './lifecycle'
import { ORDER_MOVE_NAMES } from './moveNames'
import type { OrderMove } from './moveNames'
import type { ReasonRule } from './reasonRule'

/** The moves a rule can ask a reason for: those that are made with a form where it can be written. */
export const MOVES_WITH_REASON = ORDER_MOVE_NAMES.filter((move) => ORDER_MOVES[move].at === 'desk')

export interface NeededReason {
  needed: boolean
  /** To be chosen from, when a rule gives a list; words of one's own may follow after a colon. */
  answers: string[]
}

/** What has to be written for this move of this order. Rules add to the lifecycle table, they never loosen it. */
export function neededReason(facts: ConditionFacts & Pick<OrderFacts, 'rules'>, move: OrderMove): NeededReason {
  const rules = facts.rules.reasons.filter((rule) => rule.move === move && meets(rule.when, facts))
  return {
    needed: ORDER_MOVES[move].reason === 'required' || rules.length > 0,
    answers: [...new Set(rules.flatMap((rule) => rule.answers))],
  }
}

/** Why what was written does not do; empty when it does. */
export function reasonProblems(facts: OrderFacts, move: OrderMove, written: string | null): Reason[] {
  const { needed, answers } = neededReason(facts, move)
  const words = written?.trim() ?? ''
  const { label } = ORDER_MOVES[move]
  if (needed && !words) return [{ code: 'reason_missing', sentence: `“${label}” needs a reason in writing.`, field: 'reason' }]
  if (answers.length && !answers.some((answer) => words === answer || words.startsWith(`${answer}:`)))
    return [{ code: 'reason_not_listed', sentence: `“${label}” needs one of these reasons: ${answers.join('; ')}.`, field: 'reason' }]
  return []
}

/** A rule as the sentence Setup shows: "To cancel the order, in state Ready, a reason is needed: …". */
export function reasonRuleSentence(rule: ReasonRule, names: ConditionNames): string {
  const when = conditionWords(rule.when, names)
  const how = rule.answers.length ? `a reason from the list is needed: ${rule.answers.join('; ')}` : 'a reason in free words is needed'
  return `“${ORDER_MOVES[rule.move].label}” of an order${when ? ` ${when}` : ''}: ${how}.`
}
