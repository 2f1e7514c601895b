import { eq } from 'drizzle-orm'
import type { Done } from '#contract/kit'
import * as contract from '#contract/orders'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import type { CommandContext } from '#server/kit'
import { isSettled } from '#core/orders'
import { orders } from '../tables'
import { lockOrder } from './lockOrder'

export default command(contract.archiveOrder, archive)

export async function archive({ tx, who, input, tell }: CommandContext<{ id: number; version: number }>): Promise<Done> {
  const order = await lockOrder(tx, who, input.id, input.version)
  if (!isSettled(order.state)) refuse('still_open', 'Only a closed or cancelled order can be archived.')
  const version = order.version + 1
  await tx.update(orders).set({ archived: true, version }).where(eq(orders.id, order.id))
  await tell({ kind: 'order.archive', siteId: order.siteId, orderId: order.id, from: order.state, to: order.state })
  return { id: order.id, version, state: order.state }
}
