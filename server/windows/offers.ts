import { and, desc, eq, isNotNull } from 'drizzle-orm'
import type { OrderWindows } from '#contract/windows'
import * as contract from '#contract/windows'
import { Refusal, refuse } from '#core/kit'
import { isFinished, isOver } from '#core/orders'
import { isToCome, offerReasons, proposedTimes, windowReason } from '#core/windows'
import { canAt, command, conflict, maySee, notAllowed, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader, Tell, Tx } from '#server/kit'
import { calendarOf, lockOrder, lockOrderById, seenOrder } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { keepWindow } from '#server/orders/records'
import { requestOrders, requests, timeOffers } from '../tables'

export type OfferRecord = typeof timeOffers.$inferSelect

/** Whether times can still be agreed on: work is not finished, and nobody has given the order up. */
export const isOpenFor = (order: OrderRecord): boolean => !isFinished(order.state) && !isOver(order.state) && !order.discardedAt

/** The time that was chosen, from its beginning. */
export const chosenOf = ({ times, chosenFrom }: OfferRecord): { from: Date; until: Date } | null => {
  const at = chosenFrom && times.find(({ from }) => new Date(from).getTime() === chosenFrom.getTime())
  return at ? { from: new Date(at.from), until: new Date(at.until) } : null
}
export const timesOf = ({ times }: OfferRecord) => times.map(({ from, until }) => ({ from: new Date(from), until: new Date(until) }))

async function windowsOf(db: Reader, who: Asker, order: OrderRecord, now: Date): Promise<Outgoing<OrderWindows>> {
  const [offers, whom, calendar] = await Promise.all([
    db.select().from(timeOffers).where(eq(timeOffers.orderId, order.id)).orderBy(desc(timeOffers.id)).limit(20),
    db
      .select({ name: requests.reporterName, email: requests.reporterEmail })
      .from(requestOrders)
      .innerJoin(requests, eq(requests.id, requestOrders.requestId))
      .where(and(eq(requestOrders.orderId, order.id), isNotNull(requests.reporterEmail)))
      .orderBy(requests.id),
    calendarOf(db, order.siteId),
  ])
  const asked = new Map(whom.map(({ name, email }) => [email!.toLowerCase(), { name: name ?? email!, email: email! }]))
  return {
    offers: offers.map((offer) => ({
      id: offer.id,
      version: offer.version,
      name: offer.name,
      email: offer.email,
      times: timesOf(offer),
      note: offer.note,
      state: offer.state,
      passed: offer.state === 'open' && !timesOf(offer).some((time) => isToCome(time, now)),
      chosen: chosenOf(offer),
      answer: offer.answer,
      askedAt: offer.askedAt,
      askedBy: offer.askedByName,
      answeredAt: offer.answeredAt,
    })),
    whom: [...asked.values()],
    proposed: proposedTimes(now, calendar),
    mayOffer: isOpenFor(order) && canAt(who, 'orders.edit', order.siteId),
  }
}

export const readOrderWindows = query(contract.readOrderWindows, async ({ db, who, input, now }) =>
  windowsOf(db, who, await seenOrder(db, who, input.orderId), now),
)

/** The order of somebody who plans it, held. @throws ProblemReply 404, 403 */
async function lockForPlanning(tx: Tx, who: Asker, orderId: number): Promise<OrderRecord> {
  const order = await lockOrderById(tx, orderId)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  if (!canAt(who, 'orders.edit', order.siteId)) throw notAllowed()
  return order
}

async function withdraw(tx: Tx, offer: OfferRecord, now: Date): Promise<void> {
  await tx
    .update(timeOffers)
    .set({ state: 'withdrawn', answeredAt: now, version: offer.version + 1 })
    .where(eq(timeOffers.id, offer.id))
}

export const offerTimes = command(contract.offerTimes, async ({ tx, who, input, now, tell, service }) => {
  const order = await lockForPlanning(tx, who, input.orderId)
  if (!isOpenFor(order)) refuse('order_over', 'The work is done or given up: no time is needed any more.')
  const times = input.times.map(({ from, until }) => ({ from: new Date(from), until: new Date(until) }))
  const reasons = offerReasons(times, now)
  if (reasons.length) throw new Refusal(reasons)
  const open = await tx
    .select()
    .from(timeOffers)
    .where(and(eq(timeOffers.orderId, order.id), eq(timeOffers.state, 'open')))
    .for('update')
  for (const one of open) {
    await withdraw(tx, one, now)
    // Whoever is asked anew hears it from the new mail.
    if (one.email.toLowerCase() !== input.email.toLowerCase()) await tellWithdrawn(tell, order, one)
  }
  const link = service.links.fresh('times')
  const [saved] = await tx
    .insert(timeOffers)
    .values({
      siteId: order.siteId,
      orderId: order.id,
      name: input.name,
      email: input.email,
      times: times.map(({ from, until }) => ({ from: from.toISOString(), until: until.toISOString() })).sort((a, b) => a.from.localeCompare(b.from)),
      note: input.note || null,
      state: 'open',
      askedAt: now,
      askedBy: who.accountId,
      askedByName: who.name,
      nonce: link.nonce,
      tokenHash: link.hash,
    })
    .$returningId()
  await tell({ kind: 'window.offer', siteId: order.siteId, orderId: order.id, details: { offerId: saved!.id, name: input.name, times: times.length } })
  return windowsOf(tx, who, order, now)
})

const tellWithdrawn = (tell: Tell, order: OrderRecord, offer: OfferRecord) =>
  tell({ kind: 'window.withdraw', siteId: order.siteId, orderId: order.id, details: { offerId: offer.id, name: offer.name } })

export const withdrawTimes = command(contract.withdrawTimes, async ({ tx, who, input, now, tell }) => {
  const [found] = await tx.select({ orderId: timeOffers.orderId }).from(timeOffers).where(eq(timeOffers.id, input.id))
  if (!found) throw notFound('offer')
  const order = await lockForPlanning(tx, who, found.orderId)
  const [offer] = (await tx.select().from(timeOffers).where(eq(timeOffers.id, input.id)).for('update')) as [OfferRecord]
  if (offer.version !== input.version) throw conflict(offer.version, [{ field: 'state', theirs: offer.state, yours: null }])
  if (offer.state !== 'open') refuse('answered', 'It was answered or taken back already.')
  await withdraw(tx, offer, now)
  await tellWithdrawn(tell, order, offer)
  return windowsOf(tx, who, order, now)
})

export const agreeWindow = command(contract.agreeWindow, async ({ tx, who, input, now, tell }) => {
  const order = await lockOrder(tx, who, input.id, input.version)
  if (!canAt(who, 'orders.edit', order.siteId)) throw notAllowed()
  if (!isOpenFor(order)) refuse('order_over', 'The work is done or given up: no time is needed any more.')
  const from = input.from && new Date(input.from)
  const until = input.until && new Date(input.until)
  if (!from !== !until) refuse('half', 'Say when it begins and when it ends.', from ? 'until' : 'from')
  const reason = from && until && windowReason({ from, until }, now, 'until')
  if (reason) throw new Refusal([reason])
  if (!from && !order.windowFrom) return { id: order.id, version: order.version, state: order.state }
  const agreedWith = input.with || null
  const version = await keepWindow(tx, order, from && until ? { from, until } : null, agreedWith)
  const of = { siteId: order.siteId, orderId: order.id }
  if (from && until) await tell({ kind: 'window.agree', ...of, details: { from: from.toISOString(), until: until.toISOString(), name: agreedWith } })
  else await tell({ kind: 'window.clear', ...of })
  return { id: order.id, version, state: order.state }
})
