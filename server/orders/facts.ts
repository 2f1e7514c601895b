import { and, count, eq, inArray, isNull, notInArray, sql } from 'drizzle-orm'
import type { OrderFacts } from '#core/orders'
import type { Asker, Reader } from '#server/kit'
import { canAt, standsInFor } from '#server/kit'
import { costByOrder } from '#server/ledger'
import { isBillable, isLiveVisit, LIVE_VISIT_STATES } from '#core/dispatch'
import { OVER_STATES } from '#core/orders'
import { assets, orders, orderShares, places, postings, stints, vendorBills, visits } from '../tables'
import { openAsksOf } from './asks'
import type { OrderRecord } from './orderRecord'
import { rulesOf } from './ruleBook'

/** What the rules need to know of this order and this person, in a bounded number of statements. */
export async function factsOf(db: Reader, order: OrderRecord, who: Asker, now: Date): Promise<OrderFacts> {
  const shares = await db
    .select({ payerId: orderShares.payerId, shareBp: orderShares.shareBp })
    .from(orderShares)
    .where(eq(orderShares.orderId, order.id))
    .orderBy(orderShares.position)
  const visitRows = await db
    .select({ id: visits.id, state: visits.state, vendorId: visits.vendorId, billId: vendorBills.id })
    .from(visits)
    .leftJoin(vendorBills, eq(vendorBills.visitId, visits.id))
    .where(eq(visits.orderId, order.id))
  const [time] = await db
    .select({ minutes: sql<string>`coalesce(sum(${stints.minutes}), 0)`, running: sql<string>`coalesce(sum(${stints.endAt} is null), 0)`, all: count() })
    .from(stints)
    .where(eq(stints.orderId, order.id))
  const cost = (await costByOrder(db, [order.id])).get(order.id) ?? 0
  const posted = await standingPosting(db, order.id)
  const billable = visitRows.filter(isBillable)
  return {
    state: order.state,
    heldFrom: order.heldFrom,
    kind: order.kind,
    summary: order.summary,
    description: order.description,
    placeId: order.placeId,
    assetId: order.assetId,
    categoryId: order.categoryId,
    tradeId: order.tradeId,
    teamId: order.teamId,
    leadId: order.leadId,
    supervisorId: order.supervisorId,
    priority: order.priority,
    estimateMinor: order.estimateMinor,
    shares,
    approvalLimitMinor: await limitOf(db, who, now, order.siteId),
    submittedByMe: who.accountId !== null && order.submittedBy === who.accountId,
    ownLimitMinor: canAt(who, 'orders.approve', order.siteId) ? who.approvalLimitMinor : null,
    liveVisits: visitRows.filter((visit) => isLiveVisit(visit.state)).length,
    runningStints: Number(time!.running),
    loggedMinutes: Number(time!.minutes),
    vendorVisitsWithoutBill: billable.filter((visit) => visit.billId === null).length,
    symptom: order.symptom,
    cause: order.cause,
    fix: order.fix,
    costMinor: cost,
    posted: posted !== null,
    recorded: time!.all > 0 || cost !== 0 || visitRows.length > 0,
    discarded: order.discardedAt !== null,
    hazardSeverity: order.hazardSeverity,
    hazardLikelihood: order.hazardLikelihood,
    contactName: order.contactName,
    access: order.access,
    noteForPayer: order.noteForPayer,
    placePath: await placePathOf(db, order),
    ageDays: Math.floor((now.getTime() - order.createdAt.getTime()) / 86_400_000),
    asks: await openAsksOf(db, order, who, now),
    openMembers: (await openMembersOf(db, order.id)).map((member) => member.number),
    rules: await forOrders(db, order.siteId),
  }
}

async function forOrders(db: Reader, siteId: number): Promise<OrderFacts['rules']> {
  const { completeness, reasons, ownSubmissions } = await rulesOf(db, siteId)
  return { completeness, reasons, ownSubmissions }
}

/** The ids of the place and of every place around it. */
async function placePathOf(db: Reader, { placeId, assetId }: OrderRecord): Promise<number[]> {
  const [row] = placeId
    ? await db.select({ path: places.path }).from(places).where(eq(places.id, placeId))
    : assetId
      ? await db.select({ path: places.path }).from(assets).innerJoin(places, eq(places.id, assets.placeId)).where(eq(assets.id, assetId))
      : []
  return row ? row.path.split('/').filter(Boolean).map(Number) : []
}

/** Members of the group this order leads that are not over. */
export function openMembersOf(db: Reader, leadOrderId: number) {
  return db
    .select({ id: orders.id, number: orders.number })
    .from(orders)
    .where(and(eq(orders.leadOrderId, leadOrderId), isNull(orders.discardedAt), notInArray(orders.state, OVER_STATES)))
    .orderBy(orders.id)
}

/** The posting of an order that has not been reversed, or null. */
export async function standingPosting(db: Reader, orderId: number) {
  const rows = await db.select().from(postings).where(eq(postings.orderId, orderId))
  const reversed = new Set(rows.map((posting) => posting.reversesId))
  return rows.find((posting) => posting.kind === 'posting' && !reversed.has(posting.id)) ?? null
}

/** Own limit, or that of somebody away whose deputy this person is, whichever is higher. */
async function limitOf(db: Reader, who: Asker, now: Date, siteId: number): Promise<number | null> {
  if (!who.accountId || !canAt(who, 'orders.approve', siteId)) return null
  const lent = await standsInFor(db, who.accountId, now, siteId)
  return Math.max(who.approvalLimitMinor ?? 0, ...lent.map((person) => person.limitMinor ?? 0))
}

/** Orders nobody threw away. */
export const kept = and(isNull(orders.discardedAt), eq(orders.archived, false))

export const liveVisit = inArray(visits.state, LIVE_VISIT_STATES)
