import { and, eq, inArray, isNull, sql } from 'drizzle-orm'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { neededAsks, settledBy, UNAPPROVED_STATES } from '#core/orders'
import type { ApprovalAsk, OpenAsk, OrderFacts } from '#core/orders'
import { keepAgreed } from '#server/methods/records'
import { canAt, openHolders, recordEvent, standsInFor } from '#server/kit'
import type { Asker, Reader, Tx } from '#server/kit'
import { approvals, orders } from '../tables'
import type { OrderRecord } from './orderRecord'
import { sharesOf } from './orderRows'
import type { OrderRows } from './orderRows'
import { idsIn, namesFor, rulesOf } from './ruleBook'

/** Asks everybody the rules name, and anybody with the limit. */
export async function askForApproval(tx: Tx, who: Asker, now: Date, order: OrderRecord, facts: OrderFacts): Promise<void> {
  const [shares, rules] = await Promise.all([sharesOf(tx, { orderId: order.id }), rulesOf(tx, order.siteId)])
  const needed = await asksFor(tx, facts, { shares, rules })
  await refuseInVain(tx, who, order, facts, needed)
  await tx
    .insert(approvals)
    .values(needed.map((ask) => ({ ...ask, orderId: order.id, amountMinor: order.estimateMinor!, askedAt: now, askedBy: who.accountId })))
}

/** Nobody is asked who cannot decide: the order would wait for ever. */
async function refuseInVain(tx: Tx, who: Asker, order: OrderRecord, facts: OrderFacts, needed: ApprovalAsk[]): Promise<void> {
  const named = [...new Set(needed.flatMap((ask) => ask.accountId ?? []))]
  if (!named.length) return
  const able = new Set((await openHolders(tx, 'orders.approve', order.siteId, named)).map((row) => row.id))
  const unable = named.filter((id) => !able.has(id))
  const names = await namesFor(tx, { places: [], payers: [], own: [], accounts: unable })
  const reasons = unable.map((id): Reason => ({
    code: 'asks_in_vain',
    sentence: `${names.account(id)} has to agree, and approves nothing here any more. ${id === facts.supervisorId ? 'Choose another supervisor.' : 'An administrator hands it over in Setup.'}`,
    field: id === facts.supervisorId ? 'supervisorId' : undefined,
  }))
  const own = facts.rules.ownSubmissions === 'never' || (facts.ownLimitMinor ?? -1) < (facts.estimateMinor ?? 0)
  if (who.accountId !== null && named.includes(who.accountId) && own)
    reasons.push({ code: 'own_ask', sentence: 'You have to agree to it yourself; somebody else submits it, since nobody approves what they submitted.' })
  if (reasons.length) throw new Refusal(reasons)
}

/** What one person was asked and can decide no more goes to another, with the orders they supervise. */
export async function handOverAsks(tx: Tx, who: Asker, now: Date, { siteId, fromId, toId }: { siteId: number; fromId: number; toId: number }): Promise<void> {
  const open = await tx
    .selectDistinct({ id: orders.id, state: orders.state })
    .from(approvals)
    .innerJoin(orders, eq(orders.id, approvals.orderId))
    .where(and(eq(orders.siteId, siteId), eq(approvals.accountId, fromId), isNull(approvals.decidedAt)))
  const ids = open.map((order) => order.id)
  if (ids.length)
    await tx
      .update(approvals)
      .set({ accountId: toId })
      .where(and(inArray(approvals.orderId, ids), eq(approvals.accountId, fromId), isNull(approvals.decidedAt)))
  await tx
    .update(orders)
    .set({ supervisorId: toId, version: sql`${orders.version} + 1` })
    .where(and(eq(orders.siteId, siteId), eq(orders.supervisorId, fromId), inArray(orders.state, UNAPPROVED_STATES)))
  for (const { id, state } of open) await recordEvent(tx, who, now, { kind: 'order.handOver', siteId, orderId: id, from: state, to: state, details: { toId } })
}

/** Who would have to agree to it as it stands, and why. */
export async function asksFor(db: Reader, facts: OrderFacts, { shares, rules: { approvals: rules } }: Pick<OrderRows, 'shares' | 'rules'>) {
  const consents = shares.flatMap(({ payerId, name, consentAccountId: accountId, consentAboveMinor: aboveMinor }) =>
    accountId === null || aboveMinor === null ? [] : [{ payerId, payerName: name, accountId, aboveMinor }],
  )
  const ids = idsIn({ approvals: rules, reasons: [], escalations: [] })
  const accountIds = [...ids.accounts, ...consents.map((one) => one.accountId), ...(facts.supervisorId ? [facts.supervisorId] : [])]
  return neededAsks(facts, rules, consents, await namesFor(db, { ...ids, accounts: accountIds }))
}

const IN_VAIN = 'They approve nothing here any more: an administrator hands it over in Setup.'

/** The agreements asked for when the order was last submitted, as this person finds them. */
export function openAsksIn(rows: Pick<OrderRows, 'approvals' | 'approvers'>, order: Pick<OrderRecord, 'siteId' | 'estimateMinor'>, who: Asker): OpenAsk[] {
  const last = rows.approvals[0]?.approval.askedAt.getTime()
  const round = rows.approvals.filter(({ approval }) => approval.askedAt.getTime() === last)
  const able = new Set(rows.approvers.map((approver) => approver.id))
  const lenders = lendersIn(rows, who)
  const limits = [who.approvalLimitMinor, ...lenders.map((one) => one.limitMinor)].filter((limit) => limit !== null)
  const approves = canAt(who, 'orders.approve', order.siteId)
  return round.map(({ approval, name }) => ({
    id: approval.id,
    position: approval.position,
    kind: approval.kind,
    why: approval.accountId === null || approval.decidedAt || able.has(approval.accountId) ? approval.why : `${approval.why} ${IN_VAIN}`,
    who: name ?? 'somebody whose limit covers it',
    decided: approval.decidedAt !== null,
    mine:
      approves &&
      (approval.kind === 'limit'
        ? limits.some((limit) => limit >= (order.estimateMinor ?? 0))
        : approval.accountId === who.accountId || lenders.some((one) => one.id === approval.accountId)),
  }))
}

/** Those who are away and whose deputy this person is. */
export const lendersIn = ({ approvers }: Pick<OrderRows, 'approvers'>, who: Asker) =>
  who.accountId === null ? [] : approvers.filter((approver) => approver.deputyId === who.accountId)

/** Gives every agreement this person can give now, naming whom they stood in for; answers those names. */
export async function approveAsks(
  tx: Tx,
  who: Asker,
  now: Date,
  order: Pick<OrderRecord, 'id' | 'siteId'>,
  facts: OrderFacts,
  note: string | null,
): Promise<string | null> {
  const lenders = await standsInFor(tx, who.accountId!, now, order.siteId)
  const settled = settledBy(facts.asks).map((ask) => ask.id)
  const rows = settled.length ? await tx.select().from(approvals).where(inArray(approvals.id, settled)) : []
  const lent = new Set<string>()
  for (const row of rows) {
    const own = row.kind === 'limit' ? row.amountMinor <= (who.approvalLimitMinor ?? -1) : row.accountId === who.accountId
    const lender = own ? null : lenders.find((one) => (row.kind === 'limit' ? (one.limitMinor ?? 0) >= row.amountMinor : one.accountId === row.accountId))
    if (lender) lent.add(lender.name)
    await tx
      .update(approvals)
      .set({ decidedAt: now, decidedBy: who.accountId, actingForId: lender?.accountId ?? null, verdict: 'approved', note })
      .where(eq(approvals.id, row.id))
  }
  await keepAgreed(tx, order.id)
  return [...lent].join(' and ') || null
}

/** Closes every open question about the order: it goes back to the desk. */
export const sendBackAsks = (tx: Tx, who: Asker, now: Date, orderId: number, note: string | null) => closeAsks(tx, who, now, orderId, 'sent_back', note)

/** Closes every open question about the order: it was called off, and nobody need decide any more. */
export const withdrawAsks = (tx: Tx, who: Asker, now: Date, orderId: number, note: string | null) => closeAsks(tx, who, now, orderId, 'withdrawn', note)

async function closeAsks(tx: Tx, who: Asker, now: Date, orderId: number, verdict: 'sent_back' | 'withdrawn', note: string | null): Promise<void> {
  await tx
    .update(approvals)
    .set({ decidedAt: now, decidedBy: who.accountId, verdict, note })
    .where(and(eq(approvals.orderId, orderId), isNull(approvals.decidedAt)))
}
