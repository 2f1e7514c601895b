import { and, eq, isNull } from 'drizzle-orm'
import type { Asker, Tx } from '#server/kit'
import { standsInFor } from '#server/kit'
import { approvals } from '../tables'

/** Closes the open question to the approvers with a verdict, naming whom the person stood in for. */
export async function decideApproval(
  tx: Tx,
  who: Asker,
  now: Date,
  orderId: number,
  verdict: 'approved' | 'sent_back',
  note: string | null,
  amount: number,
): Promise<string | null> {
  const needsLoan = amount > (who.approvalLimitMinor ?? 0)
  const lenders = needsLoan ? await standsInFor(tx, who.accountId!, now) : []
  const lender = lenders.find((person) => (person.limitMinor ?? 0) >= amount) ?? null
  await tx
    .update(approvals)
    .set({ decidedAt: now, decidedBy: who.accountId, actingForId: lender?.accountId ?? null, verdict, note })
    .where(and(eq(approvals.orderId, orderId), isNull(approvals.decidedAt)))
  return lender?.name ?? null
}
