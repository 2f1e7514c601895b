import { conditionWords, meets } from './conditions'
import type { ConditionFacts, OrderCondition, RuleNames } from './conditions'

/** Who hears of a promise about to be missed, or missed. */
export const ESCALATION_ROLES = ['lead', 'supervisor', 'coordinators', 'managers'] as const
export type EscalationRole = (typeof ESCALATION_ROLES)[number]
export const ESCALATION_ROLE_NAMES: Record<EscalationRole, string> = {
  lead: 'whoever leads it',
  supervisor: 'whoever supervises it',
  coordinators: 'the coordinators',
  managers: 'the managers',
}

export interface EscalationRule {
  at: 'close' | 'past'
  when: OrderCondition
  tell: (EscalationRole | { accountId: number })[]
}

export const STANDING_WORDS = { close: 'close to its target', past: 'past its target' } as const

/** Whom the rules tell when this order becomes close or past: each once. */
export function toTell(rules: EscalationRule[], at: EscalationRule['at'], facts: ConditionFacts): EscalationRule['tell'] {
  const all = rules.filter((rule) => rule.at === at && meets(rule.when, facts)).flatMap((rule) => rule.tell)
  return [...new Map(all.map((one) => [JSON.stringify(one), one])).values()]
}

export function escalationSentence(rule: EscalationRule, names: RuleNames): string {
  const when = conditionWords(rule.when, names)
  const whom = rule.tell.map((one) => (typeof one === 'string' ? ESCALATION_ROLE_NAMES[one] : names.account(one.accountId)))
  return `When an order${when ? ` ${when}` : ''} is ${STANDING_WORDS[rule.at]}, ${whom.join(' and ') || 'nobody'} ${whom.length === 1 && !/s$/.test(whom[0]!) ? 'hears' : 'hear'} of it.`
}
