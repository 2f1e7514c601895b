import type { OrderCondition } from './conditions'
import type { OrderMove } from './moveNames'

/** A move that needs a written reason for some orders, in free words or beginning with one of a list. */
export interface ReasonRule {
  move: OrderMove
  when: OrderCondition
  /** The reasons to choose from; none means any words. */
  answers: string[]
}
