import { and, asc, eq, gt, inArray, isNull } from 'drizzle-orm'
import type { TrackedRequest } from '#contract/requests'
import { dayWords, progressOf } from '#core/requests'
import { notFound, sha256 } from '#server/kit'
import type { Outgoing, Reader } from '#server/kit'
import { namePlace } from '#server/places'
import { attachments, events, orders, requestOrders, requests, sites, visits } from '../tables'
import { counterSite } from './siteByCode'

/** The request behind a private link. @throws ProblemReply 404 when unknown, expired or revoked */
export async function requestByLink(db: Reader, token: string, now: Date) {
  const [found] = await db
    .select({ request: requests, site: sites })
    .from(requests)
    .innerJoin(sites, eq(sites.id, requests.siteId))
    .where(and(eq(requests.linkHash, sha256(token)), gt(requests.linkExpiresAt, now), isNull(requests.linkRevokedAt)))
  if (!found) throw notFound('request')
  return found
}

/** Where a request stands, made only of what the reporter may know. */
export async function trackedOf(db: Reader, { request, site }: Awaited<ReturnType<typeof requestByLink>>, now: Date): Promise<Outgoing<TrackedRequest>> {
  const answering = request.joinedToId ?? request.id
  const linked = await db
    .select({ id: orders.id, state: orders.state, holdReason: orders.holdReason })
    .from(requestOrders)
    .innerJoin(orders, eq(orders.id, requestOrders.orderId))
    .where(eq(requestOrders.requestId, answering))
  const planned = linked.length
    ? await db
        .select({ orderId: visits.orderId, start: visits.plannedStart })
        .from(visits)
        .where(
          and(
            inArray(
              visits.orderId,
              linked.map((order) => order.id),
            ),
            eq(visits.state, 'planned'),
          ),
        )
        .orderBy(asc(visits.plannedStart))
    : []
  const main = request.joinedToId ? (await db.select().from(requests).where(eq(requests.id, request.joinedToId)))[0]! : request
  const place = await namePlace(db, request.placeId)
  return {
    number: request.number,
    site: counterSite(site),
    summary: request.writtenSummary,
    description: request.writtenDescription,
    place: place ? [place.name, place.within].filter(Boolean).join(', ') : null,
    receivedAt: request.receivedAt,
    progress: progressOf({
      state: main.state,
      declineReason: main.declineReason,
      question: main.question,
      zone: site.zone,
      now,
      orders: linked.map((order) => ({
        state: order.state,
        holdReason: order.holdReason,
        plannedStart: planned.find((visit) => visit.orderId === order.id)?.start ?? null,
      })),
    }),
    steps: await stepsOf(
      db,
      request.id,
      linked.map((order) => order.id),
      site.zone,
    ),
    photos: await db
      .select({ id: attachments.id, width: attachments.width, height: attachments.height })
      .from(attachments)
      .where(and(eq(attachments.requestId, request.id), eq(attachments.shared, true))),
    mayAnswer: request.state === 'asked',
  }
}

/** The moves a reporter hears of, in their words. */
const TOLD: Record<string, (details: { start?: string } | null, at: Date, zone: string) => string> = {
  'request.report': () => 'We received it.',
  'request.ask': () => 'We asked you a question.',
  'request.answer': () => 'You answered.',
  'request.accept': () => 'We took it on.',
  'request.decline': () => 'We closed it with an answer.',
  'request.join': () => 'Somebody had told us already; you hear how it goes.',
  'order.dispatch': (details, at, zone) => (details?.start ? `Planned for ${dayWords(new Date(details.start), at, zone)}.` : 'Planned.'),
  'order.start': () => 'Somebody started on it.',
  'order.check': () => 'It is done.',
  'order.reopen': () => 'We opened it again.',
  'order.cancel': () => 'It was called off.',
}

async function stepsOf(db: Reader, requestId: number, orderIds: number[], zone: string) {
  const columns = { at: events.at, kind: events.kind, details: events.details, id: events.id }
  const kinds = inArray(events.kind, Object.keys(TOLD))
  const own = await db
    .select(columns)
    .from(events)
    .where(and(eq(events.requestId, requestId), kinds))
    .orderBy(asc(events.id))
  const work = orderIds.length
    ? await db
        .select(columns)
        .from(events)
        .where(and(inArray(events.orderId, orderIds), isNull(events.requestId), kinds))
        .orderBy(asc(events.id))
    : []
  return [...own, ...work]
    .sort((a, b) => a.id - b.id)
    .map((event) => ({ at: event.at, sentence: TOLD[event.kind]!(event.details as { start?: string } | null, event.at, zone) }))
}
