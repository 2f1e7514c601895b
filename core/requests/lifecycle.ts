import { refuse, Refusal } from '#core/kit'
import type { Reason } from '#core/kit'

export const REQUEST_STATES = ['new', 'asked', 'accepted', 'joined', 'declined'] as const
export type RequestState = (typeof REQUEST_STATES)[number]
/** Nobody has decided on it yet. */
export const UNDECIDED_STATES: RequestState[] = ['new', 'asked']
export function isUndecided(state: RequestState): boolean {
  return UNDECIDED_STATES.includes(state)
}
export type RequestMove = 'accept' | 'ask' | 'answer' | 'decline' | 'join' | 'begin'

export const REQUEST_STATE_NAMES: Record<RequestState, string> = {
  new: 'New',
  asked: 'Asked',
  accepted: 'Accepted',
  joined: 'Joined',
  declined: 'Declined',
}

/** What the rules need to know of a request to say which moves are open. */
export interface RequestFacts {
  state: RequestState
  placeId: number | null
  assetId: number | null
  categoryId: number | null
  priority: string | null
  payerId: number | null
}

type Need = (facts: RequestFacts) => Reason[]

export interface RequestMoveRule {
  label: string
  key: string
  from: RequestState[]
  to: RequestState
  needs: Need[]
  /** A written reason, and what the form calls it. */
  reason: 'required' | 'none'
  reasonLabel?: string
  /** Who makes this move: the reporter's own moves are not offered at the Desk. */
  by: 'desk' | 'reporter' | 'field'
}

const triaged: Need = (facts) => {
  const missing: Reason[] = []
  const need = (ok: unknown, code: string, sentence: string, field: string) => {
    if (!ok) missing.push({ code, sentence, field })
  }
  need(facts.placeId ?? facts.assetId, 'place_missing', 'Choose the place or the asset.', 'placeId')
  need(facts.categoryId, 'category_missing', 'Choose what it is about.', 'categoryId')
  need(facts.priority, 'priority_missing', 'Say who is affected and how soon it has to be done.', 'consequence')
  need(facts.payerId, 'payer_missing', 'Choose who pays.', 'payerId')
  return missing
}

/** Where it is and who pays; the rest is found out by whoever begins. */
const placed: Need = (facts) => triaged(facts).filter(({ code }) => code === 'place_missing' || code === 'payer_missing')

/** Every move of a request. The server enforces it, the Sheet offers it, the docs draw it. */
export const REQUEST_MOVES: Record<RequestMove, RequestMoveRule> = {
  accept: { label: 'Accept as a new order', key: 'a', from: ['new', 'asked'], to: 'accepted', needs: [triaged], reason: 'none', by: 'desk' },
  ask: {
    label: 'Ask the reporter',
    key: 'q',
    from: ['new'],
    to: 'asked',
    needs: [],
    reason: 'required',
    reasonLabel: 'Your question, as the reporter will read it',
    by: 'desk',
  },
  answer: { label: 'Answer', key: '', from: ['asked'], to: 'new', needs: [], reason: 'required', reasonLabel: 'Your answer', by: 'reporter' },
  decline: {
    label: 'Decline',
    key: 'd',
    from: ['new', 'asked'],
    to: 'declined',
    needs: [],
    reason: 'required',
    reasonLabel: 'Why, as the reporter will read it',
    by: 'desk',
  },
  join: { label: 'Join to another', key: 'j', from: ['new', 'asked'], to: 'joined', needs: [], reason: 'none', by: 'desk' },
  begin: { label: 'Start on the spot', key: '', from: ['new'], to: 'accepted', needs: [placed], reason: 'none', by: 'field' },
}

/** Why this move is not possible now; empty when it is. */
export function requestMoveReasons(facts: RequestFacts, move: RequestMove): Reason[] {
  const rule = REQUEST_MOVES[move]
  if (!rule.from.includes(facts.state))
    return [{ code: 'wrong_state', sentence: `The request is ${REQUEST_STATE_NAMES[facts.state].toLowerCase()}, so it cannot take “${rule.label}”.` }]
  return rule.needs.flatMap((need) => need(facts))
}

/**
 * The state after a move.
 * @throws Refusal with every reason the move is not possible, or for a missing written reason
 */
export function moveRequest(facts: RequestFacts, move: RequestMove, written: string | null): RequestState {
  const reasons = requestMoveReasons(facts, move)
  if (reasons.length) throw new Refusal(reasons)
  const rule = REQUEST_MOVES[move]
  if (rule.reason === 'required' && !written?.trim()) refuse('reason_missing', 'Write it in a few words.', 'reason')
  return rule.to
}
