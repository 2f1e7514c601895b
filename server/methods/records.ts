import { eq } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { orderPlans } from '../tables'

/** What is planned of an order at this moment is what was agreed to. */
export async function keepAgreed(tx: Tx, orderId: number): Promise<void> {
  const mine = eq(orderPlans.orderId, orderId)
  const [plan] = await tx.select({ labour: orderPlans.labour, parts: orderPlans.parts, tools: orderPlans.tools }).from(orderPlans).where(mine)
  if (plan) await tx.update(orderPlans).set({ agreed: plan }).where(mine)
}
