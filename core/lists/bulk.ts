import { INVERSE_MOVES, ORDER_MOVES } from '#core/orders'
import type { OrderMove } from '#core/orders'
import type { Permission } from '#core/people'

/** Moves of several orders at once; archive and restore are no moves of the lifecycle but act on many as well. */
export const BULK_ORDER_MOVES = [
  'submit',
  'approve',
  'sendBack',
  'recall',
  'hold',
  'resume',
  'reopen',
  'check',
  'post',
  'close',
  'cancel',
  'discard',
  'archive',
  'restore',
] as const
export type BulkOrderMove = (typeof BULK_ORDER_MOVES)[number]

export const BULK_REQUEST_MOVES = ['takeUp', 'decline'] as const
export type BulkRequestMove = (typeof BULK_REQUEST_MOVES)[number]

/** What a bulk move is called, what may do it, and whether words go with it. */
export interface BulkRule {
  label: string
  may: Permission
  reason: 'required' | 'optional' | 'none'
  reasonLabel?: string
  /** What takes it back, for those that went, and as what they come back where that is not what they were. */
  back?: BulkOrderMove
  backAs?: string
}

const ofTable = (move: OrderMove & BulkOrderMove): BulkRule => {
  const { label, may, reason, reasonLabel } = ORDER_MOVES[move]
  const back = INVERSE_MOVES[move] as BulkOrderMove | undefined
  return { label, may, reason, ...(reasonLabel ? { reasonLabel } : {}), ...(back ? { back } : {}) }
}

export const BULK_ORDER_RULES: Record<BulkOrderMove, BulkRule> = {
  submit: ofTable('submit'),
  approve: ofTable('approve'),
  sendBack: ofTable('sendBack'),
  recall: ofTable('recall'),
  hold: ofTable('hold'),
  resume: ofTable('resume'),
  reopen: ofTable('reopen'),
  check: ofTable('check'),
  post: ofTable('post'),
  close: ofTable('close'),
  cancel: { ...ofTable('cancel'), backAs: 'as drafts' },
  discard: { ...ofTable('discard'), back: 'restore' },
  archive: { label: 'Archive', may: 'orders.edit', reason: 'none', back: 'restore' },
  restore: { label: 'Bring back', may: 'orders.edit', reason: 'none' },
}

export const BULK_REQUEST_RULES: Record<BulkRequestMove, BulkRule> = {
  takeUp: { label: 'Take up', may: 'requests.triage', reason: 'none' },
  decline: { label: 'Decline', may: 'requests.triage', reason: 'required', reasonLabel: 'Why, as the reporters will read it' },
}
