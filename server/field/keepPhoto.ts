import { readPicture } from '#server/kit'
import type { Tx } from '#server/kit'
import type { OrderRecord } from '#server/orders'
import { attachments } from '../tables'
import type { VisitRecord } from './stint'

/** Keeps a photo from the job on its order. @throws Refusal at "file" when it is no picture */
export async function keepPhoto(tx: Tx, order: OrderRecord, visit: VisitRecord, file: Express.Multer.File | undefined, now: Date): Promise<void> {
  const picture = await readPicture(file)
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
    at: now,
  })
}
