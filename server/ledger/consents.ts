import { eq } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { payers } from '../tables'

/** Who consents for a payer, and above which amount; nobody when both are null. */
export async function setConsent(tx: Tx, payerId: number, accountId: number | null, aboveMinor: number | null): Promise<void> {
  await tx.update(payers).set({ consentAccountId: accountId, consentAboveMinor: aboveMinor }).where(eq(payers.id, payerId))
}

/** Every payer one person consents for is another's to consent for. */
export async function handOverConsents(tx: Tx, fromId: number, toId: number): Promise<void> {
  await tx.update(payers).set({ consentAccountId: toId }).where(eq(payers.consentAccountId, fromId))
}
