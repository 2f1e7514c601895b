import type { OrderFacts } from './facts'
import { myTurn, openAfter } from './approvalAsks'
import { completeForApproval } from './completeness'
import {
  billsKnown,
  equipmentBack,
  chargesStand,
  hasGrown,
  mayBeginHere,
  hoursKnown,
  membersOver,
  noClockRunning,
  nothingRecorded,
  nothingToCharge,
  outcomeKnown,
  somebodyPlanned,
  somethingToCharge,
  stillAgreed,
} from './needs'
import type { Need } from './needs'
import type { OrderMove } from './moveNames'
import { sharesWhole } from './shares'
import type { OrderState } from './states'
import type { Permission } from '#core/people'

export interface OrderMoveRule {
  label: string
  /** The letter on the Sheet's button; empty for moves made elsewhere. */
  key: string
  from: OrderState[]
  /** The state it leads to, or how the state follows from the order. */
  to: OrderState | ((facts: OrderFacts) => OrderState)
  needs: Need[]
  reason: 'required' | 'optional' | 'none'
  reasonLabel?: string
  /** The permission it takes. */
  may: Permission
  /** Where the person makes it: some are made on the job, not at the Desk. */
  at: 'desk' | 'field' | 'dispatch' | 'ledger'
}

/** Every move of an order. The server enforces it, the Sheet offers it, the docs draw it. */
export const ORDER_MOVES: Record<OrderMove, OrderMoveRule> = {
  submit: {
    label: 'Submit for approval',
    key: 's',
    from: ['draft'],
    to: 'to_approve',
    needs: [completeForApproval],
    reason: 'none',
    may: 'orders.edit',
    at: 'desk',
  },
  approve: {
    label: 'Approve',
    key: 'a',
    from: ['to_approve'],
    to: (facts) => (openAfter(facts.asks).length ? 'to_approve' : 'ready'),
    needs: [completeForApproval, myTurn],
    reason: 'optional',
    reasonLabel: 'Note',
    may: 'orders.approve',
    at: 'desk',
  },
  sendBack: {
    label: 'Send back',
    key: 'b',
    from: ['to_approve'],
    to: 'draft',
    needs: [],
    reason: 'required',
    reasonLabel: 'What has to change',
    may: 'orders.approve',
    at: 'desk',
  },
  askAgain: {
    label: 'Ask for approval again',
    key: 'g',
    from: ['ready'],
    to: 'to_approve',
    needs: [hasGrown, completeForApproval],
    reason: 'required',
    reasonLabel: 'What has changed since it was agreed to',
    may: 'orders.edit',
    at: 'desk',
  },
  dispatch: {
    label: 'Dispatch',
    key: 'd',
    from: ['ready', 'dispatched'],
    to: 'dispatched',
    needs: [somebodyPlanned, stillAgreed],
    reason: 'none',
    may: 'orders.dispatch',
    at: 'dispatch',
  },
  begin: {
    label: 'Start on the spot',
    key: '',
    from: ['draft'],
    to: 'dispatched',
    needs: [mayBeginHere, somebodyPlanned],
    reason: 'none',
    may: 'field.work',
    at: 'field',
  },
  recall: {
    label: 'Recall',
    key: 'l',
    from: ['dispatched', 'on_job'],
    to: 'ready',
    needs: [noClockRunning],
    reason: 'optional',
    reasonLabel: 'Why',
    may: 'orders.dispatch',
    at: 'desk',
  },
  start: { label: 'Start', key: '', from: ['dispatched', 'on_job'], to: 'on_job', needs: [], reason: 'none', may: 'field.work', at: 'field' },
  hold: {
    label: 'Put on hold',
    key: 'h',
    from: ['ready', 'dispatched', 'on_job'],
    to: 'on_hold',
    needs: [noClockRunning],
    reason: 'required',
    reasonLabel: 'What it is waiting for',
    may: 'orders.dispatch',
    at: 'desk',
  },
  resume: {
    label: 'Resume',
    key: 'r',
    from: ['on_hold'],
    to: (facts) => (facts.liveVisits > 0 && facts.heldFrom !== 'ready' ? 'dispatched' : 'ready'),
    needs: [],
    reason: 'none',
    may: 'orders.dispatch',
    at: 'desk',
  },
  finish: {
    label: 'Finish',
    key: '',
    from: ['on_job'],
    to: 'done',
    needs: [noClockRunning, outcomeKnown, membersOver],
    reason: 'none',
    may: 'field.work',
    at: 'field',
  },
  reopen: {
    label: 'Reopen',
    key: 'o',
    from: ['done', 'checked', 'cancelled'],
    to: (facts) => (facts.state === 'cancelled' ? 'draft' : 'ready'),
    needs: [],
    reason: 'required',
    reasonLabel: 'Why it is not over',
    may: 'orders.dispatch',
    at: 'desk',
  },
  check: {
    label: 'Mark as checked',
    key: 'k',
    from: ['done'],
    to: 'checked',
    needs: [outcomeKnown, hoursKnown, billsKnown, equipmentBack, sharesWhole],
    reason: 'none',
    may: 'orders.check',
    at: 'desk',
  },
  post: {
    label: 'Post charges',
    key: 'p',
    from: ['checked'],
    to: 'closed',
    needs: [sharesWhole, billsKnown, equipmentBack, somethingToCharge],
    reason: 'none',
    may: 'ledger.post',
    at: 'desk',
  },
  close: { label: 'Close without charge', key: 'c', from: ['checked'], to: 'closed', needs: [nothingToCharge], reason: 'none', may: 'ledger.post', at: 'desk' },
  reverse: {
    label: 'Reverse the charges',
    key: 'v',
    from: ['closed'],
    to: 'checked',
    needs: [chargesStand],
    reason: 'required',
    reasonLabel: 'Why the charges are wrong',
    may: 'ledger.post',
    at: 'desk',
  },
  cancel: {
    label: 'Cancel the order',
    key: 'x',
    from: ['draft', 'to_approve', 'ready', 'dispatched', 'on_hold'],
    to: 'cancelled',
    needs: [noClockRunning],
    reason: 'required',
    reasonLabel: 'Why it is called off',
    may: 'orders.edit',
    at: 'desk',
  },
  discard: { label: 'Discard the draft', key: 'z', from: ['draft'], to: 'draft', needs: [nothingRecorded], reason: 'none', may: 'orders.discard', at: 'desk' },
}

/** The move that takes back another while nobody has acted on it since. */
export const INVERSE_MOVES: Partial<Record<OrderMove, OrderMove>> = {
  dispatch: 'recall',
  hold: 'resume',
  cancel: 'reopen',
}
