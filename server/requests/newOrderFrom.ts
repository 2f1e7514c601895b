import { asc, eq } from 'drizzle-orm'
import type { Asker, Tx } from '#server/kit'
import { beginOrder } from '#server/orders'
import { assets, categories, orders, requestOrders } from '../tables'
import type { RequestRecord } from './facts'

/** An order that starts with everything the request held, so that nothing is typed twice. */
export async function newOrderFrom(tx: Tx, who: Asker, request: RequestRecord, now: Date, summary: string) {
  const [asset] = request.assetId ? await tx.select({ vendorId: assets.vendorId }).from(assets).where(eq(assets.id, request.assetId)) : []
  const [category] = request.categoryId ? await tx.select().from(categories).where(eq(categories.id, request.categoryId)) : []
  const { siteId, description, placeId, assetId, categoryId, consequence, urgency, hazardSeverity, hazardLikelihood, prioritySentence, outsideReference } =
    request
  const beginning = {
    ...{ siteId, description, placeId, assetId, categoryId, consequence, urgency, hazardSeverity, hazardLikelihood, prioritySentence, outsideReference },
    summary,
    priority: request.priority!,
    promisedFrom: request.receivedAt,
    payerId: request.payerId!,
    tradeId: category?.tradeId ?? null,
    vendorId: asset?.vendorId ?? null,
    contactName: request.reporterName,
    contactPhone: request.reporterPhone,
  }
  const repeated = request.repeatsId === null ? null : await firstOrderOf(tx, request.repeatsId)
  if (!repeated) return beginOrder(tx, who, now, beginning, { request: request.number })
  return beginOrder(tx, who, now, { ...beginning, kind: 'call_back' }, { request: request.number, callBackOf: repeated })
}

/** The number of the order that answered a request first. */
async function firstOrderOf(tx: Tx, requestId: number): Promise<string | null> {
  const [first] = await tx
    .select({ number: orders.number })
    .from(requestOrders)
    .innerJoin(orders, eq(orders.id, requestOrders.orderId))
    .where(eq(requestOrders.requestId, requestId))
    .orderBy(asc(orders.id))
    .limit(1)
  return first?.number ?? null
}
