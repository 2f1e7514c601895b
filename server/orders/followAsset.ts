import { and, eq, inArray, isNull, notInArray } from 'drizzle-orm'
import { OVER_STATES } from '#core/orders'
import type { Tell, Tx } from '#server/kit'
import { orders } from '../tables'

/** Orders at which somebody is, or is expected: they are at the old place. */
const UNDER_WAY = ['dispatched', 'on_job'] as const

/** Open orders on these assets at which somebody is or is expected, by number. */
export async function ordersUnderWay(tx: Tx, assetIds: number[]): Promise<string[]> {
  const rows = await tx
    .select({ number: orders.number })
    .from(orders)
    .where(and(inArray(orders.assetId, assetIds), inArray(orders.state, [...UNDER_WAY]), isNull(orders.discardedAt)))
  return rows.map((row) => row.number)
}

/**
 * The open orders on assets that go elsewhere go along. At another site nobody of the old one leads, supervises or
 * does them any more; what was agreed to stays agreed. Answers how many.
 */
export async function ordersFollowAssets(
  tx: Tx,
  tell: Tell,
  assetIds: number[],
  { siteId, placeId, code }: { siteId: number; placeId: number; code: string },
): Promise<number> {
  const open = await tx
    .select()
    .from(orders)
    .where(and(inArray(orders.assetId, assetIds), notInArray(orders.state, OVER_STATES), isNull(orders.discardedAt)))
    .for('update')
  for (const order of open) {
    const elsewhere = order.siteId !== siteId
    await tx
      .update(orders)
      .set({ placeId, siteId, ...(elsewhere ? { teamId: null, leadId: null, supervisorId: null } : {}), version: order.version + 1 })
      .where(eq(orders.id, order.id))
    const fields = { placeId: { from: order.placeId, to: code } }
    await tell({ kind: 'order.edit', siteId, orderId: order.id, from: order.state, to: order.state, details: { fields } })
  }
  return open.length
}
