import { eq } from 'drizzle-orm'
import type { Asker, Tx } from '#server/kit'
import { beginOrder } from '#server/orders'
import { assets, categories } from '../tables'
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
  return beginOrder(tx, who, now, beginning, { request: request.number })
}
