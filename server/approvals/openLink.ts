import { and, desc, eq, gt, inArray, isNull, or } from 'drizzle-orm'
import type { ApprovalPage } from '#contract/approvals'
import { askerById, canAt, ProblemReply, sha256, standsInFor } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { namePlace } from '#server/places'
import { PRIORITY_NAMES } from '#core/requests'
import { sharesOf } from '#server/orders'
import { approvalLinks, approvals, attachments, orders, people, accounts, requestOrders, sites } from '../tables'

type Found = Awaited<ReturnType<typeof openLink>>

/** The question behind a link, with who may answer it. @throws ProblemReply 404 when unknown, expired, or the person approves no more */
export async function openLink(db: Reader, token: string, now: Date) {
  const [found] = await db
    .select({ link: approvalLinks, approval: approvals, order: orders, site: sites })
    .from(approvalLinks)
    .innerJoin(approvals, eq(approvals.id, approvalLinks.approvalId))
    .innerJoin(orders, eq(orders.id, approvals.orderId))
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .where(and(eq(approvalLinks.tokenHash, sha256(token)), gt(approvalLinks.expiresAt, now)))
  const who = found ? await askerById(db, found.link.accountId) : null
  if (!found || !who || !canAt(who, 'orders.approve', found.order.siteId))
    throw new ProblemReply(404, 'The link does not work', 'It has expired, or was not copied whole. Sign in to decide, or call the desk.')
  return { ...found, who }
}

/** Why this question is closed, in words, or null while it is open. */
export async function whyOver(db: Reader, { link, approval, order }: Pick<Found, 'link' | 'approval' | 'order'>): Promise<string | null> {
  if (approval.decidedAt) {
    const by = approval.decidedBy ? await nameOf(db, approval.decidedBy) : null
    const verdict = { approved: 'approved', sent_back: 'sent back', withdrawn: 'called off' }[approval.verdict!]
    return link.usedAt
      ? `You have ${approval.verdict === 'approved' ? 'approved it' : 'sent it back'}.`
      : `It was ${verdict}${by ? ` by ${by}` : ''} meanwhile.`
  }
  return order.state === 'to_approve' ? null : 'It was taken back by the desk meanwhile. You will be asked again if it is needed.'
}

async function nameOf(db: Reader, accountId: number): Promise<string | null> {
  const [row] = await db.select({ name: people.name }).from(accounts).innerJoin(people, eq(people.id, accounts.personId)).where(eq(accounts.id, accountId))
  return row?.name ?? null
}

/** Whose limit is lent when one’s own is not enough. */
async function lenderFor(db: Reader, who: Asker, siteId: number, amountMinor: number, now: Date): Promise<string | null> {
  if (amountMinor <= (who.approvalLimitMinor ?? 0)) return null
  const lenders = await standsInFor(db, who.accountId!, now, siteId)
  return lenders.find((one) => (one.limitMinor ?? 0) >= amountMinor)?.name ?? null
}

export async function pageOf(db: Reader, found: Found, now: Date): Promise<Outgoing<ApprovalPage>> {
  const { link, approval, order, site, who } = found
  const place = await namePlace(db, order.placeId)
  const shares = (await sharesOf(db, { orderId: order.id })).map(({ code, name, shareBp }) => ({ code, name, shareBp }))
  return {
    person: who.name,
    actingFor: await lenderFor(db, who, order.siteId, order.estimateMinor ?? 0, now),
    site: { name: site.name, deskPhone: site.deskPhone },
    number: order.number,
    version: order.version,
    summary: order.summary,
    description: order.description,
    place: place ? [place.name, place.within].filter(Boolean).join(', ') : null,
    priority: order.priority ? PRIORITY_NAMES[order.priority] : 'No priority yet',
    prioritySentence: order.prioritySentence,
    currency: site.currency,
    estimateMinor: order.estimateMinor ?? 0,
    shares,
    askedBy: approval.askedBy ? await nameOf(db, approval.askedBy) : null,
    askedAt: approval.askedAt,
    expiresAt: link.expiresAt,
    pictures: (await picturesOf(db, order.id)).map(({ id, name }) => ({ id, name })),
    over: await whyOver(db, found),
  }
}

/** Pictures of the order and of the requests it answers, without their contents. */
export async function picturesOf(db: Reader, orderId: number) {
  const told = await db.select({ id: requestOrders.requestId }).from(requestOrders).where(eq(requestOrders.orderId, orderId))
  const ids = told.map((row) => row.id)
  return db
    .select({ id: attachments.id, name: attachments.name })
    .from(attachments)
    .where(
      and(
        eq(attachments.kind, 'picture'),
        isNull(attachments.commentId),
        or(eq(attachments.orderId, orderId), ids.length ? inArray(attachments.requestId, ids) : undefined),
      ),
    )
    .orderBy(desc(attachments.id))
    .limit(12)
}
