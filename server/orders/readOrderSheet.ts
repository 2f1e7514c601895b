import { and, asc, desc, eq, gte, inArray, isNull } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/orders'
import type { OrderFacts } from '#core/orders'
import type { ApprovalRow, OrderSheet, PostingRow, StintRow, VisitRow } from '#contract/orders'
import { holdersAt, maySee, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { budgetsOf, costLinesOf } from '#server/ledger'
import { awayNow } from '#server/people'
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
import { asksFor } from './asks'
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
    agreements: await agreementsOf(db, order, facts),
    approvers: await approversFor(db, order.siteId, order.estimateMinor ?? 0, now),
    budgets: await budgetsOf(
      db,
      facts.shares.map((share) => share.payerId),
      now,
    ),
    lead: await leadOf(db, order.leadOrderId),
    members: await membersOf(db, id),
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

/** What was asked for when it was submitted; before that, what would be asked as it stands. */
async function agreementsOf(db: Reader, order: typeof orders.$inferSelect, facts: OrderFacts): Promise<OrderSheet['agreements']> {
  if (order.state === 'to_approve') return facts.asks.map(({ position, who, why, decided }) => ({ position, who, why, decided }))
  if (order.state !== 'draft' || order.estimateMinor === null) return []
  const asks = await asksFor(db, order, facts)
  return asks.map(({ position, why, accountId }) => ({ position, who: accountId ? '' : 'somebody whose limit covers it', why, decided: false }))
}

async function leadOf(db: Reader, leadOrderId: number | null): Promise<OrderSheet['lead']> {
  if (!leadOrderId) return null
  const [lead] = await db.select({ id: orders.id, number: orders.number, summary: orders.summary }).from(orders).where(eq(orders.id, leadOrderId))
  return lead ?? null
}

function membersOf(db: Reader, leadOrderId: number) {
  return db
    .select({ id: orders.id, number: orders.number, summary: orders.summary, state: orders.state, heldFrom: orders.heldFrom })
    .from(orders)
    .where(and(eq(orders.leadOrderId, leadOrderId), isNull(orders.discardedAt)))
    .orderBy(asc(orders.id))
}

/** Those whose own limit covers the amount, the lowest sufficient limit first, with who decides for them while they are away. */
async function approversFor(db: Reader, siteId: number, amount: number, now: Date): Promise<Outgoing<OrderSheet['approvers']>> {
  const rows = await db
    .selectDistinct({ id: accounts.id, name: people.name, limitMinor: accounts.approvalLimitMinor })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .where(and(holdersAt('orders.approve', siteId), gte(accounts.approvalLimitMinor, amount)))
    .orderBy(asc(accounts.approvalLimitMinor))
  const away = await awayNow(
    db,
    rows.map((row) => row.id),
    now,
  )
  return rows.map((row) => ({
    name: row.name,
    limitMinor: row.limitMinor!,
    awayUntil: away.get(row.id)?.untilAt ?? null,
    deputy: away.get(row.id)?.deputy ?? null,
  }))
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
