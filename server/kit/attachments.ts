import { and, eq, inArray } from 'drizzle-orm'
import { attachments } from '../tables'
import type { Tx } from './database'

/** What a Sheet shows of a file before it is opened. */
export const FILE_COLUMNS = {
  id: attachments.id,
  kind: attachments.kind,
  name: attachments.name,
  mime: attachments.mime,
  width: attachments.width,
  height: attachments.height,
  stage: attachments.stage,
}

type Attachment = typeof attachments.$inferInsert

/** Keeps a file with what it hangs on, or with the claim by which it is hung on something later. Answers its id. */
export async function keepAttachment(tx: Tx, attachment: Attachment): Promise<number> {
  const [saved] = await tx.insert(attachments).values(attachment).$returningId()
  return saved!.id
}

/** Hangs files that were sent ahead on what their claims were shown for; its reporter may see them. */
export async function hangClaimed(tx: Tx, ids: number[], to: { requestId: number; commentId?: number }): Promise<void> {
  await tx
    .update(attachments)
    .set({ ...to, claimHash: null, shared: true })
    .where(inArray(attachments.id, ids))
}

/** A file that was sent ahead belongs to an order now. */
export async function hangOnOrder(tx: Tx, id: number, orderId: number): Promise<void> {
  await tx.update(attachments).set({ orderId, claimHash: null }).where(eq(attachments.id, id))
}

/** The files of a request are the files of the order that answers it, too. */
export async function showOnOrder(tx: Tx, requestId: number, orderId: number): Promise<void> {
  await tx.update(attachments).set({ orderId }).where(eq(attachments.requestId, requestId))
}

/** The order answers the request no longer. */
export async function hideFromOrder(tx: Tx, requestId: number, orderId: number): Promise<void> {
  await tx
    .update(attachments)
    .set({ orderId: null })
    .where(and(eq(attachments.requestId, requestId), eq(attachments.orderId, orderId)))
}
