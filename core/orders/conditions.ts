import { formatMinor } from '#core/kit'
import type { Priority } from '#core/requests'
import { PRIORITY_NAMES } from '#core/requests'
import { ORDER_KIND_NAMES, ORDER_STATE_NAMES } from './states'
import type { OrderKind, OrderState } from './states'

/** For which orders a rule holds: everything given has to be true; nothing given means every order. */
export interface OrderCondition {
  states?: OrderState[]
  kinds?: OrderKind[]
  priorities?: Priority[]
  /** Estimates of this much and more, in minor units. An order without an estimate is below every amount. */
  amountFromMinor?: number
  /** This place and everything in it. */
  placeId?: number
  /** One of these pays a share. */
  payerIds?: number[]
  /** Whole days since the order was made. */
  olderThanDays?: number
}

/** What a condition looks at. */
export interface ConditionFacts {
  state: OrderState
  kind: OrderKind
  priority: string | null
  estimateMinor: number | null
  /** The ids of its place and every place around it; of the asset's place when only that is known. */
  placePath: number[]
  shares: { payerId: number; shareBp: number }[]
  /** Whole days since it was made. */
  ageDays: number
}

/** Whether a rule holds for this order. */
export function meets(condition: OrderCondition, facts: ConditionFacts): boolean {
  const { states, kinds, priorities, amountFromMinor, placeId, payerIds, olderThanDays } = condition
  return (
    (!states?.length || states.includes(facts.state)) &&
    (!kinds?.length || kinds.includes(facts.kind)) &&
    (!priorities?.length || priorities.includes(facts.priority as Priority)) &&
    (amountFromMinor === undefined || (facts.estimateMinor ?? -1) >= amountFromMinor) &&
    (placeId === undefined || facts.placePath.includes(placeId)) &&
    (!payerIds?.length || facts.shares.some((share) => payerIds.includes(share.payerId))) &&
    (olderThanDays === undefined || facts.ageDays > olderThanDays)
  )
}

/** What ids in a rule are called. */
export interface RuleNames {
  place: (id: number) => string
  payer: (id: number) => string
  account: (id: number) => string
}

/** A condition as the middle of a sentence, empty when it holds always: "of kind Repair, from 500.00, in TID Tidewater Hall". */
export function conditionWords(condition: OrderCondition, names: Pick<RuleNames, 'place' | 'payer'>): string {
  const { states, kinds, priorities, amountFromMinor, placeId, payerIds, olderThanDays } = condition
  const either = (words: string[]) => (words.length > 1 ? `${words.slice(0, -1).join(', ')} or ${words.at(-1)}` : words[0]!)
  return [
    ...(states?.length ? [`in state ${either(states.map((state) => ORDER_STATE_NAMES[state]))}`] : []),
    ...(kinds?.length ? [`of kind ${either(kinds.map((kind) => ORDER_KIND_NAMES[kind]))}`] : []),
    ...(priorities?.length ? [`of priority ${either(priorities.map((priority) => PRIORITY_NAMES[priority]))}`] : []),
    ...(amountFromMinor === undefined ? [] : [`from ${formatMinor(amountFromMinor)}`]),
    ...(placeId === undefined ? [] : [`in ${names.place(placeId)}`]),
    ...(payerIds?.length ? [`paid by ${either(payerIds.map(names.payer))}`] : []),
    ...(olderThanDays === undefined ? [] : [`older than ${olderThanDays} ${olderThanDays === 1 ? 'day' : 'days'}`]),
  ].join(', ')
}
