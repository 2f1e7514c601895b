import type { Reason } from '#core/kit'
import { isFinished, isSettled } from './states'
import type { OrderState } from './states'

/** What was agreed to in the approval: it does not change behind the approver's back. */
const AGREED = ['estimateMinor', 'shares', 'kind', 'placeId', 'assetId', 'supervisorId'] as const
/** Once settled, what the charge tells stays as it was told. */
const TOLD = ['summary', 'description', 'noteForPayer'] as const

/** Fields whose editing hangs on where the order stands; all others can be written while it is kept. */
export type GuardedField = (typeof AGREED)[number] | (typeof TOLD)[number]

/** The fields that stay as they are in this state. Who pays can be put right until it is charged. */
export function fixedFields(state: OrderState): readonly GuardedField[] {
  if (state === 'draft') return []
  if (isSettled(state)) return [...AGREED, ...TOLD]
  return isFinished(state) ? AGREED.filter((field) => field !== 'shares') : AGREED
}

/** Why a field cannot be written now; null when it can. */
export function editReason(state: OrderState, field: string): Reason | null {
  if (!(fixedFields(state) as readonly string[]).includes(field)) return null
  const sentence = isSettled(state)
    ? 'The order is over; this stays as it was.'
    : 'This was agreed to in the approval. Send the order back, or reopen it, to change it.'
  return { code: 'agreed', sentence, field }
}
