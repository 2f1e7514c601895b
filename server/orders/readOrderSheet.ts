import { and, asc, desc, eq, gte, inArray, isNull } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/orders'
import type { ApprovalRow, OrderSheet, PostingRow, StintRow, VisitRow } from '#contract/orders'
import { maySee, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { costLinesOf } from '#server/ledger'
import { nameAsset, namePlace } from '#server/places'
import {
  accountRoles,
  accounts,
  approvals,
  attachments,
  charges,
  orders,
  orderShares,
  payers,
  people,
  postings,
  requestOrders,
  requests,
  sites,
  stints,
  technicians,
  vendorPasses,
  vendors,
  visits,
} from '../tables'
import { factsOf } from './facts'
import { gaugeOf, gaugeTarget } from './targetOf'
import { timelineOfOrder } from './timelineOf'

export default query(contract.readOrder, ({ db, who, input, now }) => readOrderSheet(db, who, input.id, now))

/** One order in full. @throws ProblemReply 404 when it is not theirs to see */
export async function readOrderSheet(db: Reader, who: Asker, id: number, now: Date): Promise<Outgoing<OrderSheet>> {
  const [found] = await db.select({ order: orders, site: sites }).from(orders).innerJoin(sites, eq(sites.id, orders.siteId)).where(eq(orders.id, id))
  if (!found || !maySee(who, found.order.siteId)) throw notFound('order')
  const { order, site } = found
  const facts = await factsOf(db, order, who, now)
  const costs = await costLinesOf(db, id)
  return {
    id,
    number: order.number,
    version: order.version,
    site: { id: site.id, zone: site.zone, currency: site.currency },
    state: order.state,
    facts,
    kind: order.kind,
    summary: order.summary,
    description: order.description,
    place: await namePlace(db, order.placeId),
    asset: await nameAsset(db, order.assetId),
    categoryId: order.categoryId,
    tradeId: order.tradeId,
    teamId: order.teamId,
    leadId: order.leadId,
    supervisorId: order.supervisorId,
    consequence: order.consequence,
    urgency: order.urgency,
    priority: order.priority,
    prioritySentence: order.prioritySentence,
    estimateMinor: order.estimateMinor,
    contactName: order.contactName,
    contactPhone: order.contactPhone,
    access: order.access,
    noteForWorker: order.noteForWorker,
    noteForPayer: order.noteForPayer,
    outsideReference: order.outsideReference,
    target: gaugeTarget(order),
    gauge: await gaugeOf(db, order, now),
    holdReason: order.holdReason,
    symptom: order.symptom,
    cause: order.cause,
    fix: order.fix,
    outcomeNote: order.outcomeNote,
    discarded: order.discardedAt !== null,
    archived: order.archived,
    shares: await db
      .select({ payerId: payers.id, payerCode: payers.code, payerName: payers.name, shareBp: orderShares.shareBp })
      .from(orderShares)
      .innerJoin(payers, eq(payers.id, orderShares.payerId))
      .where(eq(orderShares.orderId, id))
      .orderBy(asc(orderShares.position)),
    approvers: await approversFor(db, order.estimateMinor ?? 0),
    requests: await db
      .select({ id: requests.id, number: requests.number, summary: requests.summary, reporterName: requests.reporterName })
      .from(requestOrders)
      .innerJoin(requests, eq(requests.id, requestOrders.requestId))
      .where(eq(requestOrders.orderId, id)),
    visits: await visitsOf(db, id),
    stints: await stintsOf(db, id),
    costs: costs.map(({ vendorId: _vendor, ...line }) => line),
    costMinor: costs.reduce((sum, line) => sum + line.cost, 0),
    approvals: await approvalsOf(db, id),
    postings: await postingsOf(db, id),
    attachments: await db
      .select({
        id: attachments.id,
        kind: attachments.kind,
        name: attachments.name,
        mime: attachments.mime,
        width: attachments.width,
        height: attachments.height,
      })
      .from(attachments)
      .where(eq(attachments.orderId, id)),
    timeline: await timelineOfOrder(db, id),
  }
}

/** Those whose own limit covers the amount, the lowest sufficient limit first. */
async function approversFor(db: Reader, amount: number) {
  return db
    .select({ name: people.name, limitMinor: accounts.approvalLimitMinor })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .where(and(eq(accountRoles.role, 'approver'), isNull(accounts.disabledAt), gte(accounts.approvalLimitMinor, amount)))
    .orderBy(asc(accounts.approvalLimitMinor))
    .then((rows) => rows.map((row) => ({ name: row.name, limitMinor: row.limitMinor! })))
}

async function visitsOf(db: Reader, orderId: number): Promise<Outgoing<VisitRow>[]> {
  const rows = await db
    .select({ visit: visits, person: people.name, vendor: vendors.name, pass: vendorPasses })
    .from(visits)
    .leftJoin(technicians, eq(technicians.id, visits.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .leftJoin(vendorPasses, eq(vendorPasses.visitId, visits.id))
    .where(eq(visits.orderId, orderId))
    .orderBy(asc(visits.plannedStart))
  return rows.map(({ visit, person, vendor, pass }) => ({
    id: visit.id,
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
    pass: pass ? { id: pass.id, expiresAt: pass.expiresAt, revokedAt: pass.revokedAt } : null,
  }))
}

async function stintsOf(db: Reader, orderId: number): Promise<Outgoing<StintRow>[]> {
  const rows = await db
    .select({ stint: stints, person: people.name, vendor: vendors.name })
    .from(stints)
    .innerJoin(visits, eq(visits.id, stints.visitId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .leftJoin(technicians, eq(technicians.id, stints.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .where(eq(stints.orderId, orderId))
    .orderBy(asc(stints.startAt))
  return rows.map(({ stint, person, vendor }) => ({
    id: stint.id,
    visitId: stint.visitId,
    who: person ?? vendor ?? '',
    kind: stint.kind,
    startAt: stint.startAt,
    endAt: stint.endAt,
    minutes: stint.minutes,
    perHourMinor: stint.perHourMinor,
    costMinor: stint.costMinor,
  }))
}

async function approvalsOf(db: Reader, orderId: number): Promise<Outgoing<ApprovalRow>[]> {
  const [askedPerson, decidedPerson, forPerson] = [alias(people, 'asked'), alias(people, 'decided'), alias(people, 'acting_for')]
  const [askedAccount, decidedAccount, forAccount] = [alias(accounts, 'asked_account'), alias(accounts, 'decided_account'), alias(accounts, 'for_account')]
  return db
    .select({
      id: approvals.id,
      amountMinor: approvals.amountMinor,
      askedAt: approvals.askedAt,
      askedBy: askedPerson.name,
      decidedAt: approvals.decidedAt,
      decidedBy: decidedPerson.name,
      actingFor: forPerson.name,
      verdict: approvals.verdict,
      note: approvals.note,
    })
    .from(approvals)
    .leftJoin(askedAccount, eq(askedAccount.id, approvals.askedBy))
    .leftJoin(askedPerson, eq(askedPerson.id, askedAccount.personId))
    .leftJoin(decidedAccount, eq(decidedAccount.id, approvals.decidedBy))
    .leftJoin(decidedPerson, eq(decidedPerson.id, decidedAccount.personId))
    .leftJoin(forAccount, eq(forAccount.id, approvals.actingForId))
    .leftJoin(forPerson, eq(forPerson.id, forAccount.personId))
    .where(eq(approvals.orderId, orderId))
    .orderBy(desc(approvals.id))
}

async function postingsOf(db: Reader, orderId: number): Promise<Outgoing<PostingRow>[]> {
  const rows = await db.select().from(postings).where(eq(postings.orderId, orderId)).orderBy(asc(postings.id))
  if (!rows.length) return []
  const chargeRows = await db
    .select({ charge: charges, code: payers.code, name: payers.name })
    .from(charges)
    .innerJoin(payers, eq(payers.id, charges.payerId))
    .where(
      inArray(
        charges.postingId,
        rows.map((row) => row.id),
      ),
    )
  return rows.map((posting) => ({
    id: posting.id,
    kind: posting.kind,
    round: posting.round,
    month: posting.month,
    at: posting.at,
    charges: chargeRows
      .filter(({ charge }) => charge.postingId === posting.id)
      .map(({ charge, code, name }) => ({
        id: charge.id,
        payerId: charge.payerId,
        payerCode: code,
        payerName: name,
        shareBp: charge.shareBp,
        netMinor: charge.netMinor,
        taxMinor: charge.taxMinor,
        grossMinor: charge.grossMinor,
        ownCost: charge.ownCost,
      })),
  }))
}
