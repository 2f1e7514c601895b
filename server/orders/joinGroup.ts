import { eq } from 'drizzle-orm'
import * as contract from '#contract/orders'
import { refuse } from '#core/kit'
import { command, maySee, notFound } from '#server/kit'
import { isOver } from '#core/orders'
import { orders } from '../tables'
import { lockOrder, lockOrderById } from './lockOrder'
import { readOrderSheet } from './readOrderSheet'

export default command(contract.joinGroup, async ({ tx, who, input, now, tell }) => {
  if (input.leadId === input.id) refuse('own_lead', 'An order does not lead itself.', 'leadId')
  // Always in the order of their ids, so that two who group each other's orders do not wait in a ring.
  const lead = input.leadId < input.id ? await lockOrderById(tx, input.leadId) : undefined
  const order = await lockOrder(tx, who, input.id, input.version)
  const chosen = lead ?? (await lockOrderById(tx, input.leadId))
  if (!chosen || !maySee(who, chosen.siteId) || chosen.siteId !== order.siteId || chosen.discardedAt) throw notFound('order')
  if (chosen.leadOrderId) refuse('lead_is_member', `${chosen.number} belongs to a group itself; choose the order that leads it.`, 'leadId')
  if (isOver(chosen.state)) refuse('lead_over', `${chosen.number} is over; it leads nothing any more.`, 'leadId')
  const [member] = await tx.select({ id: orders.id }).from(orders).where(eq(orders.leadOrderId, order.id)).limit(1)
  if (member) refuse('leads_others', `${order.number} leads a group; take its members out first.`, 'leadId')
  await tx
    .update(orders)
    .set({ leadOrderId: chosen.id, version: order.version + 1 })
    .where(eq(orders.id, order.id))
  await tell({ kind: 'order.join', siteId: order.siteId, orderId: order.id, details: { lead: chosen.number } })
  await tell({ kind: 'order.lead', siteId: order.siteId, orderId: chosen.id, details: { member: order.number } })
  return readOrderSheet(tx, who, order.id, now)
})
