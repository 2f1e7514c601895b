import Big from 'big.js'
import { eq } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { orderPlans } from '../tables'

/** A part is needed for an order as well: once more where it is planned already. @param quantity a decimal text above zero */
export async function planPart(tx: Tx, orderId: number, partId: number, quantity: string): Promise<void> {
  const [plan] = await tx.select().from(orderPlans).where(eq(orderPlans.orderId, orderId)).for('update')
  const planned = plan?.parts ?? []
  const there = planned.find((line) => line.partId === partId)
  const parts = there
    ? planned.map((line) => (line === there ? { ...line, quantity: new Big(line.quantity).plus(quantity).toString() } : line))
    : [...planned, { partId, quantity }]
  if (plan)
    await tx
      .update(orderPlans)
      .set({ parts, version: plan.version + 1 })
      .where(eq(orderPlans.orderId, orderId))
  else await tx.insert(orderPlans).values({ orderId, labour: [], parts, tools: [], hazards: [], version: 1 })
}

/** What is planned of an order at this moment is what was agreed to. */
export async function keepAgreed(tx: Tx, orderId: number): Promise<void> {
  const mine = eq(orderPlans.orderId, orderId)
  const [plan] = await tx.select({ labour: orderPlans.labour, parts: orderPlans.parts, tools: orderPlans.tools }).from(orderPlans).where(mine)
  if (plan) await tx.update(orderPlans).set({ agreed: plan }).where(mine)
}
