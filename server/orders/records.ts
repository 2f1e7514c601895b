import { eq } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { orders } from '../tables'

/** What is agreed with whoever lets people in, or that nothing is any more. @returns the version the order has then */
export async function keepWindow(
  tx: Tx,
  order: { id: number; version: number },
  window: { from: Date; until: Date } | null,
  agreedWith: string | null,
): Promise<number> {
  const version = order.version + 1
  await tx
    .update(orders)
    .set({ windowFrom: window?.from ?? null, windowUntil: window?.until ?? null, windowWith: window ? agreedWith : null, version })
    .where(eq(orders.id, order.id))
  return version
}

/** What is planned of an order, once it has grown beyond what was agreed to by more than the site lets pass; null while it has not. */
export async function noteOutgrown(tx: Tx, orderId: number, outgrownMinor: number | null): Promise<void> {
  await tx.update(orders).set({ outgrownMinor }).where(eq(orders.id, orderId))
}

/** Who is to do it, where that is a vendor. @returns the version the order has then */
export async function keepVendor(tx: Tx, order: { id: number; version: number }, vendorId: number): Promise<number> {
  const version = order.version + 1
  await tx.update(orders).set({ vendorId, version }).where(eq(orders.id, order.id))
  return version
}
