import { and, eq, inArray, isNotNull } from 'drizzle-orm'
import { keepAttachment, recordEvent } from '#server/kit'
import type { Actor, Picture, Tx } from '#server/kit'
import { comments, requestOrders, requests } from '../tables'

/** What was said on an order to whoever reported it: a message in the conversation of each of them who can be reached, mailed to them. */
export async function messageReporters(
  tx: Tx,
  who: Actor,
  orderId: number,
  { messageId, text, at }: { messageId: number; text: string; at: Date },
): Promise<void> {
  const reached = await tx
    .select({ id: requests.id, siteId: requests.siteId })
    .from(requestOrders)
    .innerJoin(requests, eq(requests.id, requestOrders.requestId))
    .where(and(eq(requestOrders.orderId, orderId), isNotNull(requests.reporterEmail)))
  for (const { id: requestId, siteId } of reached) {
    await tx.insert(comments).values({ requestId, kind: 'message', accountId: who.accountId, authorName: who.name, text, at, messageId })
    await recordEvent(tx, who, at, { kind: 'request.message', siteId, requestId, reason: text })
  }
}

/** A photo of what was said so, in each of those conversations. */
export async function pictureForReporters(tx: Tx, messageId: number, { content, mime, width, height, thumb }: Picture, at: Date): Promise<void> {
  const said = await tx
    .select({ id: comments.id, requestId: comments.requestId, siteId: requests.siteId })
    .from(comments)
    .innerJoin(requests, eq(requests.id, comments.requestId))
    .where(inArray(comments.messageId, [messageId]))
  for (const { id: commentId, requestId, siteId } of said)
    await keepAttachment(tx, { siteId, requestId, commentId, shared: true, name: 'photo.jpg', mime, width, height, bytes: content.length, content, thumb, at })
}
