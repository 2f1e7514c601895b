import { HOLD_REASON_NAMES } from './states'
import type { HoldReason, OrderState } from './states'

/** What is known of who an order could wait for. */
export interface Waiting {
  state: OrderState
  hold: HoldReason | null
  lead: string | null
  /** Those planned or present. */
  who: string | null
  /** Those asked for their agreement who have not decided; empty when anybody with the limit can. */
  asked: readonly string[]
}

/**
 * Who an order waits for where it stands, in words that go on after a name of the order.
 * Common practice of a help desk; no published source.
 *
 * @example waitsFor({ state: 'dispatched', who: 'Bram Oyelaran', … }) // 'Bram Oyelaran to start'
 */
export function waitsFor({ state, hold, lead, who, asked }: Waiting): string {
  switch (state) {
    case 'draft':
      return lead ? `${lead} to plan it` : 'somebody to lead it'
    case 'to_approve':
      return `${asked.join(' and ') || 'somebody whose limit covers it'} to approve it`
    case 'ready':
      return 'somebody to be sent'
    case 'dispatched':
      return who ? `${who} to start` : 'somebody to be sent'
    case 'on_job':
      return who ? `${who} to finish` : 'somebody to go on with it'
    case 'on_hold':
      return hold ? HOLD_REASON_NAMES[hold].replace(/^Waiting for /, '') : 'what it is on hold for'
    case 'done':
      return 'somebody to check it'
    case 'checked':
      return 'somebody to charge it'
    case 'closed':
    case 'cancelled':
      return 'nobody'
  }
}
