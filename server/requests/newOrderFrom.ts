import { eq } from 'drizzle-orm'
import { PRIORITIES } from '#core/requests'
import { recordEvent } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { promiseFor, takeNumber } from '#server/orders'
import { assets, categories, orders, orderShares } from '../tables'
import type { RequestRecord } from './facts'

/** An order that starts with everything the request held, so that nothing is typed twice. */
export async function newOrderFrom(tx: Tx, who: Asker, request: RequestRecord, now: Date, summary: string) {
  const [asset] = request.assetId ? await tx.select({ vendorId: assets.vendorId }).from(assets).where(eq(assets.id, request.assetId)) : []
  const [category] = request.categoryId ? await tx.select().from(categories).where(eq(categories.id, request.categoryId)) : []
  const promise = await promiseFor(tx, request.siteId, request.priority!, request.receivedAt, request.categoryId)
  const number = await takeNumber(tx, request.siteId, 'order')
  const [saved] = await tx
    .insert(orders)
    .values({
      ...promise,
      number,
      siteId: request.siteId,
      state: 'draft',
      kind: 'repair',
      summary,
      description: request.description,
      placeId: request.placeId,
      assetId: request.assetId,
      categoryId: request.categoryId,
      tradeId: category?.tradeId ?? null,
      leadId: who.accountId,
      vendorId: asset?.vendorId ?? null,
      consequence: request.consequence,
      hazardSeverity: request.hazardSeverity,
      hazardLikelihood: request.hazardLikelihood,
      urgency: request.urgency,
      priority: request.priority,
      priorityRank: PRIORITIES.indexOf(request.priority!) + 1,
      prioritySentence: request.prioritySentence,
      contactName: request.reporterName,
      contactPhone: request.reporterPhone,
      outsideReference: request.outsideReference,
      createdAt: now,
      createdBy: who.accountId,
    })
    .$returningId()
  await tx.insert(orderShares).values({ orderId: saved!.id, payerId: request.payerId!, shareBp: 10_000, position: 0 })
  await recordEvent(tx, who, now, { kind: 'order.create', siteId: request.siteId, orderId: saved!.id, to: 'draft', details: { request: request.number } })
  return { id: saved!.id, number }
}
