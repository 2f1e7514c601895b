import { and, asc, eq, isNotNull } from 'drizzle-orm'
import * as contract from '#contract/requests'
import type { RequestSheet } from '#contract/requests'
import { bulletinsAt } from '#server/help'
import { FILE_COLUMNS, maySee, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { budgetsOf } from '#server/ledger'
import { promiseRule, rulesOf } from '#server/orders'
import { nameAsset, namePlace } from '#server/places'
import { attachments, followers, incomingMails, orders, requestOrders, requests, sites } from '../tables'
import { readAnswers } from './categoryForms'
import { requestFacts } from './facts'
import { lastOutcome } from './outcome'

export default query(contract.readRequest, ({ db, who, input, now }) => readRequestSheet(db, who, input.id, now))

/** One request in full. @throws ProblemReply 404 when it is not theirs to see */
export async function readRequestSheet(db: Reader, who: Asker, id: number, now: Date): Promise<Outgoing<RequestSheet>> {
  const [found] = await db.select({ request: requests, site: sites }).from(requests).innerJoin(sites, eq(sites.id, requests.siteId)).where(eq(requests.id, id))
  if (!found || !maySee(who, found.request.siteId)) throw notFound('request')
  const { request, site } = found
  const rule = request.priority ? await promiseRule(db, site.id, request.priority, request.categoryId) : null
  const [joinedTo] = request.joinedToId
    ? await db.select({ id: requests.id, number: requests.number }).from(requests).where(eq(requests.id, request.joinedToId))
    : []
  const [repeats] = request.repeatsId
    ? await db.select({ id: requests.id, number: requests.number }).from(requests).where(eq(requests.id, request.repeatsId))
    : []
  const outcome = await lastOutcome(db, who, request, now)
  const { matrix, hazards } = await rulesOf(db, site.id)
  return {
    id,
    number: request.number,
    version: request.version,
    site: { id: site.id, zone: site.zone, currency: site.currency },
    decides: { matrix, hazards },
    facts: requestFacts(request),
    state: request.state,
    channel: request.channel,
    summary: request.summary,
    description: request.description,
    writtenSummary: request.writtenSummary,
    writtenDescription: request.writtenDescription,
    reporter: { id: request.reporterId, name: request.reporterName, email: request.reporterEmail, phone: request.reporterPhone },
    place: await namePlace(db, request.placeId),
    asset: await nameAsset(db, request.assetId),
    categoryId: request.categoryId,
    consequence: request.consequence,
    urgency: request.urgency,
    hazardSeverity: request.hazardSeverity,
    hazardLikelihood: request.hazardLikelihood,
    priority: request.priority,
    prioritySentence: request.prioritySentence,
    priorityOverridden: request.priorityOverridden,
    promise: rule ? { clock: rule.clock, responseMinutes: rule.responseMinutes, completionMinutes: rule.completionMinutes } : null,
    wish: request.wish,
    payerId: request.payerId,
    outsideReference: request.outsideReference,
    receivedAt: request.receivedAt,
    takenUpAt: request.takenUpAt,
    decidedAt: request.decidedAt,
    triageCloseAt: request.triageCloseAt,
    triageDueAt: request.triageDueAt,
    question: request.question,
    declineReason: request.declineReason,
    joinedTo: joinedTo ?? null,
    joinedFrom: await db.select({ id: requests.id, number: requests.number }).from(requests).where(eq(requests.joinedToId, id)),
    orders: await db
      .select({ id: orders.id, number: orders.number, state: orders.state, summary: orders.summary })
      .from(requestOrders)
      .innerJoin(orders, eq(orders.id, requestOrders.orderId))
      .where(eq(requestOrders.requestId, id)),
    answers: await readAnswers(db, request.formId, request.answers),
    repeats: repeats ?? null,
    bulletins: request.placeId ? await bulletinsAt(db, site.id, request.placeId, now) : [],
    sentBy: request.sentBy ?? null,
    mails: await db
      .select({ id: incomingMails.id, subject: incomingMails.subject, receivedAt: incomingMails.receivedAt, leftOut: incomingMails.leftOut })
      .from(incomingMails)
      .where(eq(incomingMails.requestId, id))
      .orderBy(asc(incomingMails.id)),
    followers: await db
      .select({ name: followers.name, email: followers.email })
      .from(followers)
      .where(and(eq(followers.requestId, id), isNotNull(followers.confirmedAt))),
    outcome: outcome && { move: outcome.move, order: outcome.order?.number ?? null, reasons: outcome.reasons },
    budget: request.payerId ? ((await budgetsOf(db, [request.payerId], now))[0] ?? null) : null,
    attachments: await db.select(FILE_COLUMNS).from(attachments).where(eq(attachments.requestId, id)),
  }
}
