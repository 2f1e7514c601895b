import { and, asc, eq, ne, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/orders'
import type { OrderSheet, PostingRow, StintRow, VisitRow } from '#contract/orders'
import { maySee, notFound, query, statement } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { placeAmong, placesOn } from '#server/places'
import { assets, findings, orders, ownStates, places, requestOrders, requests, sites } from '../tables'
import { gaugeOf, gaugeTarget } from './targetOf'
import { windowOf } from './orderRecord'
import { readOrderRows } from './orderRows'
import type { OrderRows } from './orderRows'
import { costLinesIn, factsFrom } from './facts'

export default query(contract.readOrder, ({ db, who, input, now }) => readOrderSheet(db, who, input.id, now))

/**
 * One order in full: nine statements in two rounds. What more its sections show is read by them.
 * @throws ProblemReply 404 when it is not theirs to see
 */
export async function readOrderSheet(db: Reader, who: Asker, id: number, now: Date): Promise<Outgoing<OrderSheet>> {
  const [found] = await findOrder(db, { id })
  if (!found || !maySee(who, found.order.siteId)) throw notFound('order')
  const { order, site, asset, lead, placePath, assetPlacePath } = found
  const [rows, onPath] = await Promise.all([readOrderRows(db, order, now), placesOn(db, placePath)])
  const facts = factsFrom(rows, placePath ?? assetPlacePath, order, who, now)
  const costs = costLinesIn(rows)
  return {
    id,
    number: order.number,
    version: order.version,
    site: { id: site.id, zone: site.zone, currency: site.currency },
    decides: { matrix: rows.rules.matrix, hazards: rows.rules.hazards },
    state: order.state,
    facts,
    kind: order.kind,
    summary: order.summary,
    description: order.description,
    place: placeAmong(onPath, order.placeId),
    asset,
    categoryId: order.categoryId,
    tradeId: order.tradeId,
    teamId: order.teamId,
    leadId: order.leadId,
    supervisorId: order.supervisorId,
    vendorId: order.vendorId,
    consequence: order.consequence,
    urgency: order.urgency,
    hazardSeverity: order.hazardSeverity,
    hazardLikelihood: order.hazardLikelihood,
    priority: order.priority,
    prioritySentence: order.prioritySentence,
    estimateMinor: order.estimateMinor,
    contactName: order.contactName,
    contactPhone: order.contactPhone,
    access: order.access,
    window: windowOf(order),
    noteForWorker: order.noteForWorker,
    noteForPayer: order.noteForPayer,
    outsideReference: order.outsideReference,
    target: gaugeTarget(order),
    gauge: gaugeOf(order, site.calendar, now),
    holdReason: order.holdReason,
    ownState: found.ownState,
    symptom: order.symptom,
    cause: order.cause,
    fix: order.fix,
    outcomeNote: order.outcomeNote,
    discarded: order.discardedAt !== null,
    archived: order.archived,
    shares: rows.shares.map(({ payerId, code, name, shareBp }) => ({ payerId, payerCode: code, payerName: name, shareBp })),
    lead,
    members: rows.members,
    requests: JSON.parse(found.requests) ?? [],
    findings: { found: found.found, answers: found.answers },
    callBackOf: JSON.parse(found.callBackOf),
    visits: rows.visits.map(visitRow),
    stints: rows.stints.map(stintRow),
    costs: costs.map(({ vendorId: _vendor, ...line }) => line),
    costMinor: facts.costMinor,
    postings: postingRows(rows),
    attachments: rows.files,
  }
}

/** An order with what it names: its site, its place, its asset, the order that leads it, and the requests it answers. */
const findOrder = statement(['id'], (db, { id }) => {
  const [assetPlace, lead] = [alias(places, 'asset_place'), alias(orders, 'lead_order')]
  const request = sql`json_object('id', ${requests.id}, 'number', ${requests.number}, 'summary', ${requests.summary}, 'reporterName', ${requests.reporterName})`
  const answered = db
    .select({ all: sql`json_arrayagg(${request} order by ${requests.id})` })
    .from(requestOrders)
    .innerJoin(requests, eq(requests.id, requestOrders.requestId))
    .where(eq(requestOrders.orderId, id))
  const [repeats, repeated, first] = [alias(requests, 'repeats'), alias(requestOrders, 'repeated'), alias(orders, 'first_order')]
  const callBack = db
    .select({ one: sql`json_object('id', ${first.id}, 'number', ${first.number})` })
    .from(requestOrders)
    .innerJoin(repeats, eq(repeats.id, requestOrders.requestId))
    .innerJoin(repeated, eq(repeated.requestId, repeats.repeatsId))
    .innerJoin(first, eq(first.id, repeated.orderId))
    .where(and(eq(requestOrders.orderId, id), ne(first.id, id)))
    .orderBy(asc(first.id))
    .limit(1)
  return db
    .select({
      order: orders,
      site: { id: sites.id, zone: sites.zone, currency: sites.currency, calendar: sites.calendar },
      asset: { id: assets.id, tag: assets.tag, name: assets.name },
      ownState: { id: ownStates.id, name: ownStates.name, mark: ownStates.mark },
      lead: { id: lead.id, number: lead.number, summary: lead.summary },
      placePath: places.path,
      assetPlacePath: assetPlace.path,
      requests: sql<string>`coalesce((${answered}), '[]')`,
      callBackOf: sql<string>`coalesce((${callBack}), 'null')`,
      found: sql<number>`(select count(*) from ${findings} where ${findings.orderId} = ${id})`.mapWith(Number),
      answers: sql<number>`(select count(*) from ${findings} where ${findings.followUpOrderId} = ${id})`.mapWith(Number),
    })
    .from(orders)
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(assets, eq(assets.id, orders.assetId))
    .leftJoin(assetPlace, eq(assetPlace.id, assets.placeId))
    .leftJoin(ownStates, eq(ownStates.id, orders.ownStateId))
    .leftJoin(lead, eq(lead.id, orders.leadOrderId))
    .where(eq(orders.id, id))
})

function visitRow({ visit, person, vendor, pass, brought }: OrderRows['visits'][number]): Outgoing<VisitRow> {
  return {
    id: visit.id,
    version: visit.version,
    who: person ?? vendor ?? '',
    technicianId: visit.technicianId,
    vendorId: visit.vendorId,
    kind: visit.kind,
    state: visit.state,
    plannedStart: visit.plannedStart,
    plannedEnd: visit.plannedEnd,
    startedAt: visit.startedAt,
    endedAt: visit.endedAt,
    result: visit.result,
    answer: visit.answer,
    answeredAt: visit.answeredAt,
    answerNote: visit.answerNote,
    proposed: visit.proposedStart && visit.proposedEnd ? { start: visit.proposedStart, end: visit.proposedEnd } : null,
    silent: visit.silentAt !== null && visit.answer === null && visit.state === 'planned',
    brought: brought.map((part) => ({ ...part, quantity: String(part.quantity) })),
    pass: pass ? { id: pass.id, expiresAt: pass.expiresAt, revokedAt: pass.revokedAt } : null,
  }
}

function stintRow({ stint, person, vendor }: OrderRows['stints'][number]): Outgoing<StintRow> {
  return {
    id: stint.id,
    visitId: stint.visitId,
    who: person ?? vendor ?? '',
    kind: stint.kind,
    startAt: stint.startAt,
    endAt: stint.endAt,
    minutes: stint.minutes,
    perHourMinor: stint.perHourMinor,
    costMinor: stint.costMinor,
  }
}

function postingRows({ postings }: OrderRows): Outgoing<PostingRow>[] {
  const all = new Map(postings.map(({ posting }) => [posting.id, posting]))
  return [...all.values()].map((posting) => ({
    id: posting.id,
    kind: posting.kind,
    round: posting.round,
    month: posting.month,
    at: posting.at,
    charges: postings.flatMap(({ charge, code, name }) =>
      charge?.postingId !== posting.id
        ? []
        : [
            {
              id: charge.id,
              payerId: charge.payerId,
              payerCode: code!,
              payerName: name!,
              shareBp: charge.shareBp,
              netMinor: charge.netMinor,
              taxMinor: charge.taxMinor,
              grossMinor: charge.grossMinor,
              ownCost: charge.ownCost,
            },
          ],
    ),
  }))
}
