import { keepAttachment } from '#server/kit'
import type { Picture, Tx } from '#server/kit'
import type { VisitRecord } from '#server/dispatch/records'
import type { OrderRecord } from '#server/orders'

/** Keeps a photo from the job on its order. */
export async function keepPhoto(tx: Tx, order: OrderRecord, visit: VisitRecord, picture: Picture, now: Date): Promise<void> {
  await keepAttachment(tx, {
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    vendorId: visit.vendorId,
    name: 'photo.jpg',
    mime: picture.mime,
    width: picture.width,
    height: picture.height,
    bytes: picture.content.length,
    content: picture.content,
    thumb: picture.thumb,
    at: now,
  })
}
