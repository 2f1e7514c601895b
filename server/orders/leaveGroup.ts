import { eq } from 'drizzle-orm'
import * as contract from '#contract/orders'
import { refuse } from '#core/kit'
import { command, recordEvent } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { orders } from '../tables'
import type { OrderRecord } from './orderRecord'
import { lockOrder } from './lockOrder'
import { readOrderSheet } from './readOrderSheet'

export default command(contract.leaveGroup, async ({ tx, who, input, now }) => {
  const order = await lockOrder(tx, who, input.id, input.version)
  if (!order.leadOrderId) refuse('no_group', 'It belongs to no group.')
  await takeOut(tx, who, now, order)
  return readOrderSheet(tx, who, order.id, now)
})

/** Takes an order out of its group. Nothing else about it changes: it is whole, and goes on by itself. */
export async function takeOut(tx: Tx, who: Pick<Asker, 'accountId' | 'name'>, now: Date, order: OrderRecord): Promise<void> {
  const [lead] = await tx.select({ id: orders.id, number: orders.number }).from(orders).where(eq(orders.id, order.leadOrderId!))
  await tx
    .update(orders)
    .set({ leadOrderId: null, version: order.version + 1 })
    .where(eq(orders.id, order.id))
  await recordEvent(tx, who, now, { kind: 'order.leave', siteId: order.siteId, orderId: order.id, details: { lead: lead!.number } })
  await recordEvent(tx, who, now, { kind: 'order.unlead', siteId: order.siteId, orderId: lead!.id, details: { member: order.number } })
}
