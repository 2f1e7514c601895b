import { and, eq } from 'drizzle-orm'
import { refuse, Refusal } from '#core/kit'
import { isOver } from '#core/orders'
import { sayReasons } from '#core/talk'
import type { TalkAudience, Speaker } from '#core/talk'
import { keepAttachment, notFound } from '#server/kit'
import type { Actor, Picture, Tell, Tx } from '#server/kit'
import type { OrderRecord } from '#server/orders'
import { messageReporters, pictureForReporters } from '#server/requests'
import { orderMessages } from '../tables'
import { reportersOf, vendorVisit } from './records'

interface Saying {
  tx: Tx
  /** Locked. */
  order: OrderRecord
  speaker: Speaker
  actor: Actor
  at: Date
  tell: Tell
}
interface Words {
  mark: string
  audience: TalkAudience
  text: string
  /** Of whoever says it on site, or of the vendor it is to. */
  visitId: number | null
}

/** Says something on an order. @throws Refusal when nobody is reached by it, or it was said already */
export async function sayOn({ tx, order, speaker, actor, at, tell }: Saying, { mark, audience, text, visitId }: Words): Promise<void> {
  const reached = audience === 'reporter' ? (await reportersOf(tx, order.id)).length : 0
  const reasons = sayReasons(speaker, audience, { reached, over: isOver(order.state) })
  if (reasons.length) throw new Refusal(reasons)
  const isToVendor = speaker === 'desk' && audience === 'vendor'
  if (isToVendor && (visitId === null || (await vendorVisit(tx, order.id, visitId)) === null))
    refuse('vendor_unknown', 'Choose a vendor who was sent there.', 'audience')
  const [there] = await tx
    .select({ id: orderMessages.id })
    .from(orderMessages)
    .where(and(eq(orderMessages.orderId, order.id), eq(orderMessages.mark, mark)))
  if (there) refuse('said_already', 'This was sent already.', 'mark')
  const [saved] = await tx
    .insert(orderMessages)
    .values({ orderId: order.id, visitId, mark, speaker, audience, accountId: actor.accountId, authorName: actor.name, text, at })
    .$returningId()
  const messageId = saved!.id
  if (audience === 'reporter') await messageReporters(tx, actor, order.id, { messageId, text, at })
  await tell({
    kind: 'talk.say',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visitId ?? undefined,
    reason: text,
    details: { messageId, speaker, audience, visitId },
  })
}

/** Adds a photo to what one said. @throws ProblemReply 404 for what somebody else said, or nobody */
export async function pictureSaid(
  { tx, order, speaker, actor, at, tell }: Saying,
  { mark, visitId }: Pick<Words, 'mark' | 'visitId'>,
  { content, mime, width, height, thumb }: Picture,
): Promise<void> {
  const [said] = await tx
    .select()
    .from(orderMessages)
    .where(and(eq(orderMessages.orderId, order.id), eq(orderMessages.mark, mark), eq(orderMessages.speaker, speaker)))
  const isMine = said && (speaker === 'vendor' ? said.visitId === visitId : said.accountId === actor.accountId)
  if (!isMine) throw notFound('message')
  await keepAttachment(tx, {
    ...{ siteId: order.siteId, orderId: order.id, visitId: said.visitId, messageId: said.id, name: 'photo.jpg' },
    ...{ mime, width, height, bytes: content.length, content, thumb, at },
  })
  if (said.audience === 'reporter') await pictureForReporters(tx, said.id, { content, mime, width, height, thumb }, at)
  await tell({ kind: 'talk.photo', siteId: order.siteId, orderId: order.id, visitId: said.visitId ?? undefined, details: { messageId: said.id } })
}
