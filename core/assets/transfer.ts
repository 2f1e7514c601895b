import type { Reason } from '#core/kit'

export const TRANSFER_KINDS = ['move', 'loan'] as const
export type TransferKind = (typeof TRANSFER_KINDS)[number]
export const TRANSFER_KIND_NAMES: Record<TransferKind, string> = { move: 'For good', loan: 'On loan' }

export const TRANSFER_STATES = ['asked', 'done', 'lent', 'refused', 'withdrawn', 'returned'] as const
export type TransferState = (typeof TRANSFER_STATES)[number]
export const TRANSFER_STATE_NAMES: Record<TransferState, string> = {
  asked: 'Asked for',
  done: 'Moved',
  lent: 'Lent',
  refused: 'Refused',
  withdrawn: 'Withdrawn',
  returned: 'Returned',
}

/** Not over: while one of an asset is open, no other can be asked for, so that it never has to be in two places. */
export const OPEN_TRANSFER_STATES: TransferState[] = ['asked', 'lent']

export const TRANSFER_MOVES = ['agree', 'refuse', 'withdraw', 'giveBack'] as const
export type TransferMove = (typeof TRANSFER_MOVES)[number]

/** What the rules need to know of a transfer and of who acts. */
export interface TransferFacts {
  kind: TransferKind
  state: TransferState
  /** They asked for it themselves. */
  askedByMe: boolean
  /** They keep the registers where it goes, and where it came from. */
  answersThere: boolean
  answersHere: boolean
}

const RULES: Record<TransferMove, { from: TransferState; to: (kind: TransferKind) => TransferState; needs: (facts: TransferFacts) => string | null }> = {
  agree: {
    from: 'asked',
    to: (kind) => (kind === 'loan' ? 'lent' : 'done'),
    needs: ({ askedByMe, answersThere }) =>
      !answersThere ? 'Whoever keeps the registers where it goes agrees to it.' : askedByMe ? 'You asked for it yourself; somebody else agrees.' : null,
  },
  refuse: {
    from: 'asked',
    to: () => 'refused',
    needs: ({ askedByMe, answersThere }) =>
      !answersThere ? 'Whoever keeps the registers where it goes decides on it.' : askedByMe ? 'You asked for it yourself: withdraw it instead.' : null,
  },
  withdraw: { from: 'asked', to: () => 'withdrawn', needs: ({ askedByMe }) => (askedByMe ? null : 'Whoever asked for it withdraws it.') },
  giveBack: {
    from: 'lent',
    to: () => 'returned',
    needs: ({ answersThere, answersHere }) => (answersThere || answersHere ? null : 'Whoever keeps the registers of either site records that.'),
  },
}

/** What becomes of a transfer, or why it cannot. */
export function moveTransfer(facts: TransferFacts, move: TransferMove): { state: TransferState; reasons: [] } | { state: null; reasons: Reason[] } {
  const rule = RULES[move]
  if (facts.state !== rule.from)
    return { state: null, reasons: [{ code: 'wrong_state', sentence: `It is ${TRANSFER_STATE_NAMES[facts.state].toLowerCase()} already.` }] }
  const why = rule.needs(facts)
  return why ? { state: null, reasons: [{ code: 'not_yours', sentence: why }] } : { state: rule.to(facts.kind), reasons: [] }
}

/** Where the asset is while a transfer is in a state: there only while it is lent, or for good once it was moved. */
export const standsAt = (state: TransferState): 'from' | 'to' => (state === 'done' || state === 'lent' ? 'to' : 'from')
