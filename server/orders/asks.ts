import { and, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm'
import { neededAsks, settledBy } from '#core/orders'
import type { OpenAsk, OrderFacts } from '#core/orders'
import { standsInFor } from '#server/kit'
import type { Asker, Reader, Tx } from '#server/kit'
import { accounts, approvals, payers, people } from '../tables'
import type { OrderRecord } from './facts'
import { idsIn, namesFor, rulesOf } from './ruleBook'

/** Asks everybody the rules name, and anybody with the limit. */
export async function askForApproval(tx: Tx, who: Asker, now: Date, order: OrderRecord, facts: OrderFacts): Promise<void> {
  const needed = await asksFor(tx, order, facts)
  await tx
    .insert(approvals)
    .values(needed.map((ask) => ({ ...ask, orderId: order.id, amountMinor: order.estimateMinor!, askedAt: now, askedBy: who.accountId })))
}

/** Who would have to agree to it as it stands, and why. */
export async function asksFor(db: Reader, order: Pick<OrderRecord, 'siteId' | 'supervisorId'>, facts: OrderFacts) {
  const { approvals: rules } = await rulesOf(db, order.siteId)
  const payerIds = facts.shares.map((share) => share.payerId)
  const consents = payerIds.length
    ? await db
        .select({ payerId: payers.id, payerName: payers.name, accountId: payers.consentAccountId, aboveMinor: payers.consentAboveMinor })
        .from(payers)
        .where(and(inArray(payers.id, payerIds), isNotNull(payers.consentAboveMinor), isNotNull(payers.consentAccountId)))
    : []
  const ids = idsIn({ approvals: rules, reasons: [], escalations: [] })
  const accountIds = [...ids.accounts, ...consents.map((one) => one.accountId!), ...(facts.supervisorId ? [facts.supervisorId] : [])]
  const names = await namesFor(db, { ...ids, accounts: accountIds })
  return neededAsks(
    facts,
    rules,
    consents.map((one) => ({ ...one, accountId: one.accountId!, aboveMinor: one.aboveMinor! })),
    names,
  )
}

/** The agreements asked for when the order was last submitted, as this person finds them. */
export async function openAsksOf(db: Reader, orderId: number, who: Asker, now: Date, estimateMinor: number | null): Promise<OpenAsk[]> {
  const rows = await db
    .select({ approval: approvals, name: people.name })
    .from(approvals)
    .leftJoin(accounts, eq(accounts.id, approvals.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .where(eq(approvals.orderId, orderId))
    .orderBy(desc(approvals.askedAt), approvals.position, approvals.id)
  const last = rows[0]?.approval.askedAt.getTime()
  const round = rows.filter(({ approval }) => approval.askedAt.getTime() === last)
  const lenders = who.accountId && round.length ? await standsInFor(db, who.accountId, now) : []
  const limits = [who.approvalLimitMinor, ...lenders.map((one) => one.limitMinor)].filter((limit) => limit !== null)
  const approver = who.roles.includes('approver')
  return round.map(({ approval, name }) => ({
    id: approval.id,
    position: approval.position,
    kind: approval.kind,
    why: approval.why,
    who: name ?? 'somebody whose limit covers it',
    decided: approval.decidedAt !== null,
    mine:
      approver &&
      (approval.kind === 'limit'
        ? limits.some((limit) => limit >= (estimateMinor ?? 0))
        : approval.accountId === who.accountId || lenders.some((one) => one.accountId === approval.accountId)),
  }))
}

/** Gives every agreement this person can give now, naming whom they stood in for; answers those names. */
export async function approveAsks(tx: Tx, who: Asker, now: Date, facts: OrderFacts, note: string | null): Promise<string | null> {
  const lenders = await standsInFor(tx, who.accountId!, now)
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
