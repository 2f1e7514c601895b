import type { PhotoStage } from '#core/field'
import { keepAttachment } from '#server/kit'
import type { Picture, Tx } from '#server/kit'
import type { VisitRecord } from '#server/dispatch/records'
import type { OrderRecord } from '#server/orders'

/** Keeps a photo on its order: from a visit, or with no visit from whoever did a step of it. @returns its id */
export function keepPhoto(
  tx: Tx,
  order: Pick<OrderRecord, 'id' | 'siteId'>,
  visit: VisitRecord | null,
  picture: Picture,
  now: Date,
  stage: PhotoStage | 'signature' | null = null,
): Promise<number> {
  return keepAttachment(tx, {
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit?.id ?? null,
    vendorId: visit?.vendorId ?? null,
    name: stage === 'signature' ? 'signature.jpg' : 'photo.jpg',
    stage,
    mime: picture.mime,
    width: picture.width,
    height: picture.height,
    bytes: picture.content.length,
    content: picture.content,
    thumb: picture.thumb,
    at: now,
  })
}
