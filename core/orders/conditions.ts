import { formatMinor } from '#core/kit'
import type { OwnField, OwnValue } from '#core/own'
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
  /** A field the site has added. */
  own?: OwnCondition
}

/** What has to stand in an own field: everything given has to be true. */
export interface OwnCondition {
  fieldId: number
  /** Whether anything stands there at all. */
  filled?: boolean
  /** One of these: a choice by its key, yes as "1" and no as "0", a text as it is written, whatever its case. */
  oneOf?: string[]
  /** Numbers of this much and more, and of this much and less. */
  from?: number
  to?: number
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
  /** What stands in its own fields, by their ids: of every field there is, null where nothing was written. */
  own: Record<string, OwnValue>
}

/** Whether a rule holds for this order. */
export function meets(condition: OrderCondition, facts: ConditionFacts): boolean {
  const { states, kinds, priorities, amountFromMinor, placeId, payerIds, olderThanDays, own } = condition
  return (
    (!states?.length || states.includes(facts.state)) &&
    (!kinds?.length || kinds.includes(facts.kind)) &&
    (!priorities?.length || priorities.includes(facts.priority as Priority)) &&
    (amountFromMinor === undefined || (facts.estimateMinor ?? -1) >= amountFromMinor) &&
    (placeId === undefined || facts.placePath.includes(placeId)) &&
    (!payerIds?.length || facts.shares.some((share) => payerIds.includes(share.payerId))) &&
    (olderThanDays === undefined || facts.ageDays > olderThanDays) &&
    (own === undefined || holdsIn(own, facts.own[own.fieldId]))
  )
}

/** A field that is out of use has no value at all: a rule about it holds for nothing. */
function holdsIn({ filled, oneOf, from, to }: OwnCondition, value: OwnValue | undefined): boolean {
  if (value === undefined) return false
  const text = value === null ? null : String(value).toLowerCase()
  return (
    (filled === undefined || filled === (value !== null)) &&
    (!oneOf?.length || (text !== null && oneOf.some((one) => one.toLowerCase() === text))) &&
    (from === undefined || (typeof value === 'number' && value >= from)) &&
    (to === undefined || (typeof value === 'number' && value <= to))
  )
}

/** What ids in a rule are called. */
export interface RuleNames {
  place: (id: number) => string
  payer: (id: number) => string
  account: (id: number) => string
  own: (fieldId: number) => Pick<OwnField, 'label' | 'shape' | 'unit' | 'choices'> | null
}

/** What a condition needs of them. */
export type ConditionNames = Pick<RuleNames, 'place' | 'payer' | 'own'>

/** A condition as the middle of a sentence, empty when it holds always: "of kind Repair, from 500.00, in TID Tidewater Hall". */
export function conditionWords(condition: OrderCondition, names: ConditionNames): string {
  const { states, kinds, priorities, amountFromMinor, placeId, payerIds, olderThanDays, own } = condition
  const either = (words: string[]) => (words.length > 1 ? `${words.slice(0, -1).join(', ')} or ${words.at(-1)}` : words[0]!)
  return [
    ...(states?.length ? [`in state ${either(states.map((state) => ORDER_STATE_NAMES[state]))}`] : []),
    ...(kinds?.length ? [`of kind ${either(kinds.map((kind) => ORDER_KIND_NAMES[kind]))}`] : []),
    ...(priorities?.length ? [`of priority ${either(priorities.map((priority) => PRIORITY_NAMES[priority]))}`] : []),
    ...(amountFromMinor === undefined ? [] : [`from ${formatMinor(amountFromMinor)}`]),
    ...(placeId === undefined ? [] : [`in ${names.place(placeId)}`]),
    ...(payerIds?.length ? [`paid by ${either(payerIds.map(names.payer))}`] : []),
    ...(olderThanDays === undefined ? [] : [`older than ${olderThanDays} ${olderThanDays === 1 ? 'day' : 'days'}`]),
    ...(own === undefined ? [] : [ownWords(own, names, either)]),
  ].join(', ')
}

/** "with Purchase number filled in", "with Plant stands still from 2 h". */
function ownWords({ fieldId, filled, oneOf, from, to }: OwnCondition, names: Pick<RuleNames, 'own'>, either: (words: string[]) => string): string {
  const field = names.own(fieldId)
  const called = (value: string) =>
    field?.shape === 'flag' ? (value === '1' ? 'yes' : 'no') : (field?.choices.find((choice) => choice.key === value)?.name ?? `“${value}”`)
  const unit = field?.unit ? ` ${field.unit}` : ''
  const said = [
    ...(filled === undefined ? [] : [filled ? 'filled in' : 'empty']),
    ...(oneOf?.length ? [either(oneOf.map(called))] : []),
    ...(from === undefined ? [] : [`from ${from}${unit}`]),
    ...(to === undefined ? [] : [`up to ${to}${unit}`]),
  ]
  return `with ${field?.label ?? 'a field that is gone'} ${said.join(', ') || 'whatever it holds'}`
}
