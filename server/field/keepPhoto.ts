import type { Picture, Tx } from '#server/kit'
import type { OrderRecord } from '#server/orders'
import { attachments } from '../tables'
import type { VisitRecord } from './stint'

/** Keeps a photo from the job on its order. */
export async function keepPhoto(tx: Tx, order: OrderRecord, visit: VisitRecord, picture: Picture, now: Date): Promise<void> {
  await tx.insert(attachments).values({
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
