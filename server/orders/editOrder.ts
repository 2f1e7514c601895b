import { eq } from 'drizzle-orm'
import * as contract from '#contract/orders'
import type { OrderFields } from '#contract/orders'
import { Refusal } from '#core/kit'
import { editReason } from '#core/orders'
import { PRIORITIES, prioritySaid } from '#core/requests'
import type { Priority } from '#core/requests'
import { changesOf, command, conflict, maySee, mustKnow, notFound } from '#server/kit'
import type { Tx } from '#server/kit'
import { orders, orderShares, payers } from '../tables'

import { lockOrderById } from './lockOrder'
import type { OrderRecord } from './orderRecord'
import { readOrderSheet } from './readOrderSheet'
import { rulesOf } from './ruleBook'
import { promiseFor } from './targetOf'

/** What the priority, and with it the promise, follows from. */
const REPRICING: (keyof OrderFields)[] = ['consequence', 'urgency', 'hazardSeverity', 'hazardLikelihood', 'categoryId']

export default command(contract.editOrder, async ({ tx, who, input, now, tell }) => {
  const { id, version, shares, ...sent } = input
  const order = await lockOrderById(tx, id)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  const { fields, differences } = changesOf(order, sent)
  if (order.version !== version) throw conflict(order.version, differences)
  await mustKnow(
    tx,
    { siteId: order.siteId, who },
    {
      placeId: ['place', fields.placeId],
      assetId: ['asset', fields.assetId],
      categoryId: ['category', fields.categoryId],
      tradeId: ['trade', fields.tradeId],
      teamId: ['team', fields.teamId],
      leadId: ['account', fields.leadId],
      supervisorId: ['approver', fields.supervisorId],
      vendorId: ['vendor', fields.vendorId],
      shares: ['payer', shares?.map((share) => share.payerId)],
    },
  )
  const fixed = Object.keys({ ...fields, ...(shares ? { shares } : {}) }).flatMap((field) => editReason(order.state, field) ?? [])
  if (fixed.length) throw new Refusal(fixed)
  const patch: Partial<typeof orders.$inferInsert> = fields
  if (REPRICING.some((field) => field in fields)) Object.assign(patch, await repriced(tx, order, fields))
  const sharesChanged = shares ? await saveShares(tx, id, shares) : null
  if (Object.keys(patch).length || sharesChanged) {
    await tx
      .update(orders)
      .set({ ...patch, version: version + 1 })
      .where(eq(orders.id, id))
    const told = Object.fromEntries(differences.map(({ field, theirs, yours }) => [field, { from: theirs, to: yours }]))
    if (sharesChanged) told.shares = sharesChanged
    if (patch.priority && patch.priority !== order.priority) told.priority = { from: order.priority, to: patch.priority }
    await tell({ kind: 'order.edit', siteId: order.siteId, orderId: id, from: order.state, to: order.state, details: { fields: told } })
  }
  return readOrderSheet(tx, who, id, now)
})

async function repriced(tx: Tx, order: OrderRecord, fields: Partial<OrderRecord>): Promise<Partial<OrderRecord>> {
  const said = { ...order, ...fields }
  const promised = async (priority: Priority): Promise<Partial<OrderRecord>> =>
    order.finishedAt ? {} : { ...(await promiseFor(tx, order.siteId, priority, order.targetStartAt, said.categoryId)), toldStanding: 'none' }
  // Another category is another promise; the priority, perhaps set by hand, stays.
  if (!REPRICING.some((field) => field !== 'categoryId' && field in fields)) return order.priority ? promised(order.priority) : {}
  const { matrix, hazards } = await rulesOf(tx, order.siteId)
  const verdict = prioritySaid(said, matrix, hazards)
  if (!verdict) return {}
  const { priority, sentence } = verdict
  if (priority === order.priority && !('categoryId' in fields)) return { prioritySentence: sentence }
  return {
    priority,
    prioritySentence: sentence,
    priorityRank: PRIORITIES.indexOf(priority) + 1,
    ...(await promised(priority)),
  }
}

async function saveShares(tx: Tx, orderId: number, shares: { payerId: number; shareBp: number }[]) {
  const known = await tx.select({ id: payers.id, code: payers.code }).from(payers)
  const code = new Map(known.map((payer) => [payer.id, payer.code]))
  const words = (list: { payerId: number; shareBp: number }[]) => list.map((share) => `${code.get(share.payerId)} ${share.shareBp / 100} %`).join(', ')
  const before = await tx
    .select({ payerId: orderShares.payerId, shareBp: orderShares.shareBp })
    .from(orderShares)
    .where(eq(orderShares.orderId, orderId))
    .orderBy(orderShares.position)
  if (words(before) === words(shares)) return null
  await tx.delete(orderShares).where(eq(orderShares.orderId, orderId))
  if (shares.length) await tx.insert(orderShares).values(shares.map((share, position) => ({ orderId, ...share, position })))
  return { from: words(before), to: words(shares) }
}
