import { eq } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { orders } from '../tables'

/** What is planned of an order, once it has grown beyond what was agreed to by more than the site lets pass; null while it has not. */
export async function noteOutgrown(tx: Tx, orderId: number, outgrownMinor: number | null): Promise<void> {
  await tx.update(orders).set({ outgrownMinor }).where(eq(orders.id, orderId))
}
