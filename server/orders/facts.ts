import { and, eq, isNull, notInArray } from 'drizzle-orm'
import type { OrderFacts } from '#core/orders'
import type { Asker, Reader } from '#server/kit'
import { canAt } from '#server/kit'
import { isBillable, isLiveVisit } from '#core/dispatch'
import { isOver, OVER_STATES } from '#core/orders'
import { labourLines } from '#server/ledger'
import type { CostLine } from '#core/ledger'
import { assets, orders, places, postings } from '../tables'
import type { OrderRecord } from './orderRecord'
import { readOrderRows } from './orderRows'
import { lendersIn, openAsksIn } from './asks'
import type { OrderRows } from './orderRows'

/** What the rules need to know of this order and this person, in eight statements; `all` is what hangs on it, where that is read already. */
export async function factsOf(
  db: Reader,
  order: OrderRecord,
  who: Asker,
  now: Date,
  all: PromiseLike<OrderRows> = readOrderRows(db, order, now),
): Promise<OrderFacts> {
  const [rows, path] = await Promise.all([all, pathOf(db, order)])
  return factsFrom(rows, path, order, who, now)
}

/** The same from what was read already; `path` is that of its place, or of the place of its asset. */
export function factsFrom(rows: OrderRows, path: string | null, order: OrderRecord, who: Asker, now: Date): OrderFacts {
  const minutes = rows.stints.reduce((sum, { stint }) => sum + (stint.minutes ?? 0), 0)
  const cost = costIn(rows)
  const {
    completeness,
    reasons,
    ownSubmissions,
    planning: { onSpotMinor },
  } = rows.rules
  const approves = canAt(who, 'orders.approve', order.siteId)
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
    shares: rows.shares.map(({ payerId, shareBp }) => ({ payerId, shareBp })),
    // Own limit, or that of somebody away whose deputy this person is, whichever is higher.
    approvalLimitMinor:
      who.accountId && approves ? Math.max(who.approvalLimitMinor ?? 0, ...lendersIn(rows, who).map((lender) => lender.limitMinor ?? 0)) : null,
    submittedByMe: who.accountId !== null && order.submittedBy === who.accountId,
    ownLimitMinor: approves ? who.approvalLimitMinor : null,
    liveVisits: rows.visits.filter(({ visit }) => isLiveVisit(visit.state)).length,
    runningStints: rows.stints.filter(({ stint }) => stint.endAt === null).length,
    loggedMinutes: minutes,
    vendorVisitsWithoutBill: rows.visits.filter(({ visit, billId }) => isBillable(visit) && billId === null).length,
    outgrownMinor: order.outgrownMinor,
    equipmentOut: rows.equipmentOut.map(({ name }) => name),
    stepsFirst: rows.stepsFirst.map(({ text }) => text),
    symptom: order.symptom,
    cause: order.cause,
    fix: order.fix,
    costMinor: cost,
    posted: standingPostingIn(rows.postings.map((row) => row.posting)) !== null,
    recorded: rows.stints.length > 0 || cost !== 0 || rows.visits.length > 0,
    discarded: order.discardedAt !== null,
    hazardSeverity: order.hazardSeverity,
    hazardLikelihood: order.hazardLikelihood,
    contactName: order.contactName,
    access: order.access,
    noteForPayer: order.noteForPayer,
    placePath: idsOfPath(path),
    ageDays: Math.floor((now.getTime() - order.createdAt.getTime()) / 86_400_000),
    own: ownIn(rows.own),
    asks: openAsksIn(rows, order, who),
    openMembers: rows.members.filter((member) => !isOver(member.state)).map((member) => member.number),
    rules: { completeness, reasons, ownSubmissions, onSpotMinor },
  }
}

/** What stands in own fields, by field. */
export const ownIn = (rows: { fieldId: number; text: string | null; number: number | null; day: string | null }[]): OrderFacts['own'] =>
  Object.fromEntries(rows.map(({ fieldId, text, number, day }) => [fieldId, text ?? number ?? day]))

/** Every cost on it so far: the lines of our own people's time, of parts and of bills. */
export const costLinesIn = (rows: Pick<OrderRows, 'stints' | 'materials'>): CostLine[] => [...labourLines(rows.stints), ...rows.materials]
const costIn = (rows: Pick<OrderRows, 'stints' | 'materials'>) => costLinesIn(rows).reduce((sum, line) => sum + line.cost, 0)

/** The ids of a place and of every place around it, from a path like "/1/7/31/". */
export const idsOfPath = (path: string | null): number[] => (path ?? '').split('/').filter(Boolean).map(Number)

async function pathOf(db: Reader, { placeId, assetId }: OrderRecord): Promise<string | null> {
  const [row] = placeId
    ? await db.select({ path: places.path }).from(places).where(eq(places.id, placeId))
    : assetId
      ? await db.select({ path: places.path }).from(assets).innerJoin(places, eq(places.id, assets.placeId)).where(eq(assets.id, assetId))
      : []
  return row?.path ?? null
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
export const standingPosting = async (db: Reader, orderId: number) => standingPostingIn(await db.select().from(postings).where(eq(postings.orderId, orderId)))

function standingPostingIn<Row extends Pick<typeof postings.$inferSelect, 'id' | 'kind' | 'reversesId'>>(rows: Row[]): Row | null {
  const reversed = new Set(rows.map((posting) => posting.reversesId))
  return rows.find((posting) => posting.kind === 'posting' && !reversed.has(posting.id)) ?? null
}

/** Orders nobody threw away. */
export const kept = and(isNull(orders.discardedAt), eq(orders.archived, false))
