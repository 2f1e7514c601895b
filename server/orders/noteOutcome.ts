import { eq } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { orders } from '../tables'
import type { OrderRecord } from './orderRecord'

/** What was found, why, and what was done about it, as whoever did the work says. */
export type Outcome = Pick<OrderRecord, 'symptom' | 'cause' | 'fix' | 'outcomeNote'>

export async function noteOutcome(tx: Tx, orderId: number, outcome: Outcome): Promise<void> {
  await tx.update(orders).set(outcome).where(eq(orders.id, orderId))
}
