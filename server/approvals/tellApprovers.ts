import { and, desc, eq, gt, inArray, isNull, lte } from 'drizzle-orm'
import { formatMinor } from '#core/kit'
import { holdersAt } from '#server/kit'
import type { Tx } from '#server/kit'
import { rulesOf, sharesOf } from '#server/orders'
import { accountRoles, accounts, approvalLinks, approvals, deputies, orders } from '../tables'
import { orderOf } from '#server/orders'
import { mail, notice } from '#server/kit'
import type { Telling } from '#server/kit'

type Ask = typeof approvals.$inferSelect

/** Everybody whose turn it is: those the open questions name, those whose limit covers it, and the deputies of those who are away. */
export async function tellApprovers(telling: Telling): Promise<void> {
  const { tx, event, service } = telling
  const { order, site, place } = await orderOf(telling)
  const asks = await asksOfTurn(tx, order.id)
  const asked = new Map<number, Ask>()
  for (const ask of asks) for (const id of await askedBy(tx, ask, order, event.at)) if (!asked.has(id)) asked.set(id, ask)
  if (!asked.size) return
  const shares = await sharesOf(tx, { orderId: order.id })
  const addresses = await tx
    .select({ id: accounts.id, email: accounts.email })
    .from(accounts)
    .where(inArray(accounts.id, [...asked.keys()]))
  const asking = order.submittedBy === event.actorId ? event.actorName : 'The desk'
  for (const { id, email } of addresses) {
    const ask = asked.get(id)!
    const text = [
      `${asking} asks you to approve ${order.number}.`,
      '',
      order.summary,
      order.description,
      '',
      `Where: ${place ? [place.name, place.within].filter(Boolean).join(', ') : 'not given'}`,
      `Why this priority: ${order.prioritySentence ?? ''}`,
      `Estimate: ${formatMinor(order.estimateMinor ?? 0)} ${site.currency}`,
      `Who pays: ${shares.map((share) => `${share.code} ${share.name} ${share.shareBp / 100} %`).join(', ')}`,
      `Why you are asked: ${ask.why || 'Somebody whose limit covers it approves it.'}`,
      '',
      'At the desk:',
      `${service.publicUrl()}/desk/planning/order/${order.id}`,
      '',
      'Decide on your phone, without signing in. The link is yours alone and works once:',
      await linkTo(telling, ask.id, id),
    ]
    await mail(telling, 'approve', email, `To approve: ${order.number} ${order.summary}`, text.join('\n'))
  }
  await notice(telling, [...asked.keys()], `${order.number} waits for your approval: ${order.summary}`)
}

/** The open questions of the lowest position of the last round; none when it was decided meanwhile. */
async function asksOfTurn(tx: Tx, orderId: number): Promise<Ask[]> {
  const open = await tx
    .select()
    .from(approvals)
    .where(and(eq(approvals.orderId, orderId), isNull(approvals.decidedAt)))
    .orderBy(desc(approvals.askedAt), approvals.position)
  return open.filter((ask) => ask.askedAt.getTime() === open[0]!.askedAt.getTime() && ask.position === open[0]!.position)
}

/** Whom a question goes to: those who may decide it now, deputies of those away included, and not whoever submitted it. */
async function askedBy(tx: Tx, ask: Ask, order: typeof orders.$inferSelect, at: Date): Promise<number[]> {
  const { ownSubmissions } = await rulesOf(tx, order.siteId)
  const holders = await tx
    .selectDistinct({ id: accounts.id, limitMinor: accounts.approvalLimitMinor })
    .from(accounts)
    .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .where(holdersAt('orders.approve', order.siteId))
  const lending = holders.filter((one) => (ask.accountId === null ? (one.limitMinor ?? -1) >= (order.estimateMinor ?? 0) : one.id === ask.accountId))
  if (!lending.length) return []
  const standIns = await tx
    .select({ id: deputies.deputyAccountId })
    .from(deputies)
    .where(
      and(
        inArray(
          deputies.forAccountId,
          lending.map((one) => one.id),
        ),
        lte(deputies.fromAt, at),
        gt(deputies.untilAt, at),
      ),
    )
  const may = (id: number) => {
    const holder = holders.find((one) => one.id === id)
    if (!holder) return false
    return id !== order.submittedBy || (ownSubmissions === 'own_limit' && (holder.limitMinor ?? -1) >= (order.estimateMinor ?? 0))
  }
  return [...new Set([...lending, ...standIns].map((one) => one.id))].filter(may)
}

const LINK_DAYS = 7

/** The link by which this person decides this question. */
async function linkTo({ tx, event, service }: Telling, approvalId: number, accountId: number): Promise<string> {
  const { token, nonce, hash } = service.links.fresh('approval')
  await tx
    .insert(approvalLinks)
    .values({ approvalId, accountId, nonce, tokenHash: hash, createdAt: event.at, expiresAt: new Date(event.at.getTime() + LINK_DAYS * 86_400_000) })
    .onDuplicateKeyUpdate({ set: { nonce, tokenHash: hash } })
  return `${service.publicUrl()}/a/${token}`
}
