import { and, asc, eq, gt, inArray, isNull, sql } from 'drizzle-orm'
import type { TrackedRequest } from '#contract/requests'
import { dayWords, progressForOthers, progressOf } from '#core/requests'
import type { Progress } from '#core/requests'
import { notFound, sha256 } from '#server/kit'
import type { Outgoing, Reader } from '#server/kit'
import { namePlace } from '#server/places'
import { whatWasDone } from '#core/field'
import { isFinished } from '#core/orders'
import { EVENT_KINDS, eventRule } from '#core/events'
import { attachments, comments, events, followers, orderMessages, orders, requestOrders, requests, sites, stints, visits } from '../tables'
import { readAnswers } from './categoryForms'
import { contactOf } from './siteByCode'

/** The request behind a private link, and whether it is followed rather than one's own. @throws ProblemReply 404 when unknown, expired or revoked */
export async function requestByLink(db: Reader, token: string, now: Date) {
  const hash = sha256(token)
  const valid = and(gt(requests.linkExpiresAt, now), isNull(requests.linkRevokedAt))
  const [own] = await db
    .select({ request: requests, site: sites })
    .from(requests)
    .innerJoin(sites, eq(sites.id, requests.siteId))
    .where(and(eq(requests.linkHash, hash), valid))
  if (own) return { ...own, follower: null }
  const [followed] = await db
    .select({ request: requests, site: sites, follower: followers })
    .from(followers)
    .innerJoin(requests, eq(requests.id, followers.requestId))
    .innerJoin(sites, eq(sites.id, requests.siteId))
    .where(and(eq(followers.linkHash, hash), valid))
  if (!followed) throw notFound('request')
  return followed
}

/** What a follower may read: the desk’s words once it has read the request, nothing of the reporter’s before. */
export const summaryForFollowers = (request: { takenUpAt: Date | null; summary: string }): string =>
  request.takenUpAt ? request.summary : 'what you reported too'

/** Where a request stands, made only of what the reporter may know; a follower sees nothing of what was sent. */
export async function trackedOf(
  db: Reader,
  { request, site, follower }: Awaited<ReturnType<typeof requestByLink>>,
  now: Date,
): Promise<Outgoing<TrackedRequest>> {
  const linked = await ordersAnswering(db, [request.joinedToId ?? request.id])
  const [main] = request.joinedToId ? await db.select().from(requests).where(eq(requests.id, request.joinedToId)) : [request]
  const place = await namePlace(db, request.placeId)
  const own = !follower
  const again = own ? await toldAgain(db, request.id) : null
  const progress = await progressIn(db, main!, linked, site.zone, now, own && !request.joinedToId)
  const said = follower
    ? []
    : await db
        .select()
        .from(comments)
        .where(and(eq(comments.requestId, request.id), eq(comments.kind, 'message')))
        .orderBy(asc(comments.id))
  const files = own
    ? await db
        .select({
          ...{ id: attachments.id, kind: attachments.kind, name: attachments.name, width: attachments.width, height: attachments.height },
          commentId: attachments.commentId,
        })
        .from(attachments)
        .where(and(eq(attachments.requestId, request.id), eq(attachments.shared, true)))
    : []
  const ours = new Set<number | null>(said.flatMap((one) => (one.accountId === null ? [] : [one.id])))
  const messageIds = said.flatMap(({ messageId }) => messageId ?? [])
  const crew = new Set<number | null>(
    messageIds.length
      ? (
          await db
            .select({ id: orderMessages.id })
            .from(orderMessages)
            .where(and(inArray(orderMessages.id, messageIds), eq(orderMessages.speaker, 'crew')))
        ).map(({ id }) => id)
      : [],
  )
  return {
    number: request.number,
    site: contactOf(site),
    following: !own,
    toConfirm: follower !== null && follower.confirmedAt === null,
    summary: own ? request.writtenSummary : summaryForFollowers(request),
    description: own ? request.writtenDescription : null,
    place: place ? [place.name, place.within].filter(Boolean).join(', ') : null,
    receivedAt: request.receivedAt,
    progress,
    steps: own
      ? await stepsOf(
          db,
          request.id,
          linked.map((order) => order.id),
          site.zone,
        )
      : [],
    answers: own ? await readAnswers(db, request.formId, request.answers) : [],
    files: files.flatMap(({ commentId, ...file }) => (ours.has(commentId) ? [] : [file])),
    messages: said.map((one) => ({
      at: one.at,
      from: one.accountId === null ? one.authorName : `${one.authorName}, ${crew.has(one.messageId) ? 'technician' : 'help desk'}`,
      mine: one.accountId === null,
      text: one.text,
      // What they sent themselves stands with what they sent.
      files: files.flatMap(({ commentId, ...file }) => (commentId === one.id && ours.has(commentId) ? [file] : [])),
    })),
    mayAnswer: own && request.state === 'asked',
    mayWrite: own && request.state !== 'declined',
    maySayFixed: own && progress.step === 'done' && again === null && !(await saidFixed(db, request.id)),
    maySayNotFixed: own && progress.step === 'done' && again === null,
    toldAgain: again,
  }
}

async function saidFixed(db: Reader, requestId: number): Promise<boolean> {
  const [said] = await db
    .select({ id: events.id })
    .from(events)
    .where(and(eq(events.requestId, requestId), eq(events.kind, 'request.fixed')))
    .limit(1)
  return said !== undefined
}

/** The number of the request by which its reporter has said that it is not fixed, or null. */
export async function toldAgain(db: Reader, requestId: number): Promise<string | null> {
  const [again] = await db.select({ number: requests.number }).from(requests).where(eq(requests.repeatsId, requestId)).limit(1)
  return again?.number ?? null
}

interface Answering {
  requestId: number
  id: number
  state: (typeof orders.$inferSelect)['state']
  holdReason: string | null
  fix: string | null
  /** Somebody’s clock runs as travel, and nobody has worked on it yet. */
  onTheWay: boolean
}

/** The orders that answer these requests. */
export async function ordersAnswering(db: Reader, requestIds: number[]): Promise<Answering[]> {
  if (!requestIds.length) return []
  return db
    .select({
      ...{ requestId: requestOrders.requestId, id: orders.id, state: orders.state, holdReason: orders.holdReason, fix: orders.fix },
      onTheWay:
        sql<number>`exists (select 1 from ${stints} where ${stints.orderId} = ${orders.id} and ${stints.kind} = 'travel' and ${stints.endAt} is null) and not exists (select 1 from ${stints} where ${stints.orderId} = ${orders.id} and ${stints.kind} = 'work')`.mapWith(
          Boolean,
        ),
    })
    .from(requestOrders)
    .innerJoin(orders, eq(orders.id, requestOrders.orderId))
    .where(inArray(requestOrders.requestId, requestIds))
}

/** @param reporters whether its own reporter asks: anybody else hears how it goes, and not what was said */
export async function progressIn(
  db: Reader,
  main: Pick<typeof requests.$inferSelect, 'state' | 'declineReason' | 'question'>,
  linked: Answering[],
  zone: string,
  now: Date,
  reporters: boolean,
): Promise<Progress> {
  const dispatched = linked.filter((order) => order.state === 'dispatched').map((order) => order.id)
  const planned = dispatched.length
    ? await db
        .select({ orderId: visits.orderId, start: visits.plannedStart })
        .from(visits)
        .where(and(inArray(visits.orderId, dispatched), eq(visits.state, 'planned')))
        .orderBy(asc(visits.plannedStart))
    : []
  const facts = {
    state: main.state,
    zone,
    now,
    orders: linked.map((order) => ({
      state: order.state,
      finished: isFinished(order.state),
      holdReason: order.holdReason,
      onTheWay: order.onTheWay,
      did: whatWasDone(order.fix),
      plannedStart: planned.find((visit) => visit.orderId === order.id)?.start ?? null,
    })),
  }
  return reporters ? progressOf({ ...facts, declineReason: main.declineReason, question: main.question }) : progressForOthers(facts)
}

/** What a reporter hears of, in the words of its kind. */
const TOLD = EVENT_KINDS.filter((kind) => eventRule(kind).told)

async function stepsOf(db: Reader, requestId: number, orderIds: number[], zone: string) {
  const columns = { at: events.at, kind: events.kind, details: events.details, id: events.id }
  const kinds = inArray(events.kind, TOLD)
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
    .map((event) => ({ at: event.at, sentence: eventRule(event.kind).told!(event.details ?? {}, (instant) => dayWords(new Date(instant), event.at, zone)) }))
    .filter(({ sentence }) => sentence)
}
