import type { OrderCondition } from './conditions'

/** Somebody a rule asks: a person by name, or whoever supervises the order. */
export type Asked = { accountId: number } | 'supervisor'

/** Who has to agree to some orders, besides somebody whose limit covers the estimate. */
export interface ApprovalRule {
  when: OrderCondition
  asks: Asked[]
  /** One after the other in the order given, or all at once. */
  inOrder: boolean
}

/** A payer who wants to be asked before more than an amount is spent at their cost. */
export interface PayerConsent {
  payerId: number
  payerName: string
  accountId: number
  aboveMinor: number
}

/** One agreement an order needs. Those of one position are asked at once, and lower positions first. */
export interface ApprovalAsk {
  position: number
  /** `limit` is anybody whose limit covers the estimate; the others name a person. */
  kind: 'limit' | 'person' | 'consent'
  accountId: number | null
  payerId: number | null
  /** Why it is needed, as a sentence. */
  why: string
}

/** An agreement asked for, as the person looking at the order finds it. */
export interface OpenAsk extends Pick<ApprovalAsk, 'position' | 'kind' | 'why'> {
  id: number
  /** Whom it waits for, in words. */
  who: string
  decided: boolean
  /** This person may give it: it names them, or somebody they stand in for, or their limit covers it. */
  mine: boolean
}
