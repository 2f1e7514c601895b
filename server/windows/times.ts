import { and, asc, eq, inArray, ne } from 'drizzle-orm'
import type { TimesPage } from '#contract/windows'
import * as contract from '#contract/windows'
import { refuse } from '#core/kit'
import { isToCome } from '#core/windows'
import { command, ProblemReply, query, recordEvent, sha256 } from '#server/kit'
import type { Outgoing, Reader, Tx } from '#server/kit'
import { lockOrderById } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { keepWindow } from '#server/orders/records'
import { namePlace } from '#server/places'
import { requestByLink } from '#server/requests'
import { orders, requestOrders, sites, timeOffers } from '../tables'
import { chosenOf, isOpenFor, timesOf } from './offers'
import type { OfferRecord } from './offers'

interface Found {
  offer: OfferRecord
  order: OrderRecord
  site: typeof sites.$inferSelect
}

/** So long after the last of its times a link still says what was chosen. */
const KEPT_DAYS = 30

/** The offer behind a link. @throws ProblemReply 404 when there is none, or it has expired */
async function openOffer(db: Reader, token: string, now: Date): Promise<Found> {
  const [found] = await db
    .select({ offer: timeOffers, order: orders, site: sites })
    .from(timeOffers)
    .innerJoin(orders, eq(orders.id, timeOffers.orderId))
    .innerJoin(sites, eq(sites.id, timeOffers.siteId))
    .where(eq(timeOffers.tokenHash, sha256(token)))
  const last = found && Math.max(...timesOf(found.offer).map(({ until }) => until.getTime()))
  if (!found || last! + KEPT_DAYS * 86_400_000 < now.getTime())
    throw new ProblemReply(404, 'The link does not work', 'It has expired, or was not copied whole. Call the desk to agree on a time.')
  return found
}

/** Why nothing can be chosen any more, or null while it can. What was chosen can be changed until somebody is planned for it. */
function whyOver({ offer, order }: Found, now: Date): string | null {
  if (!isOpenFor(order)) return 'No time is needed any more.'
  if (offer.state === 'withdrawn') return 'The desk has taken these times back.'
  if (offer.state === 'chosen' && order.state !== 'draft' && order.state !== 'to_approve' && order.state !== 'ready' && order.state !== 'on_hold')
    return 'Somebody is planned for the time you chose. Call the desk if it does not fit any more.'
  if (!timesOf(offer).some((time) => isToCome(time, now))) return 'All of these times have passed. Call the desk to agree on another.'
  return null
}

async function pageOf(db: Reader, found: Found, now: Date): Promise<Outgoing<TimesPage>> {
  const { offer, order, site } = found
  const place = await namePlace(db, order.placeId)
  return {
    site: { name: site.name, deskPhone: site.deskPhone, zone: site.zone },
    number: order.number,
    summary: order.summary,
    place: place ? [place.name, place.within].filter(Boolean).join(', ') : null,
    name: offer.name,
    note: offer.note,
    times: timesOf(offer).map((time) => ({ ...time, gone: !isToCome(time, now) })),
    state: offer.state,
    chosen: chosenOf(offer),
    answer: offer.answer,
    over: whyOver(found, now),
  }
}

export const readTimes = query(contract.readTimes, async ({ db, input, now }) => pageOf(db, await openOffer(db, input.token, now), now))

/** The offer and its order, both held, while an answer can be taken. @throws ProblemReply 404; Refusal when it cannot */
async function lockOffer(tx: Tx, token: string, now: Date): Promise<Found> {
  const found = await openOffer(tx, token, now)
  const order = (await lockOrderById(tx, found.order.id))!
  const [offer] = (await tx.select().from(timeOffers).where(eq(timeOffers.id, found.offer.id)).for('update')) as [OfferRecord]
  const held = { ...found, order, offer }
  const over = whyOver(held, now)
  if (over) refuse('over', over)
  return held
}

const answered = (tx: Tx, offer: OfferRecord, fields: Partial<typeof timeOffers.$inferInsert>) =>
  tx
    .update(timeOffers)
    .set({ ...fields, version: offer.version + 1 })
    .where(eq(timeOffers.id, offer.id))

export const chooseTime = command(contract.chooseTime, async ({ tx, input, now }) => {
  const { offer, order } = await lockOffer(tx, input.token, now)
  const from = new Date(input.from)
  const time = timesOf(offer).find((one) => one.from.getTime() === from.getTime())
  if (!time) refuse('unknown_time', 'Choose one of the times offered.', 'from')
  if (!isToCome(time, now)) refuse('gone', 'This time has passed: choose another.', 'from')
  await answered(tx, offer, { state: 'chosen', chosenFrom: from, answer: input.note || null, answeredAt: now })
  await keepWindow(tx, order, time, offer.name)
  await recordEvent(tx, { accountId: null, name: offer.name }, now, {
    kind: 'window.choose',
    siteId: order.siteId,
    orderId: order.id,
    reason: input.note || null,
    details: { offerId: offer.id, name: offer.name, from: time.from.toISOString(), until: time.until.toISOString() },
  })
  return pageOf(tx, await openOffer(tx, input.token, now), now)
})

export const sayNoneFits = command(contract.sayNoneFits, async ({ tx, input, now }) => {
  const { offer, order } = await lockOffer(tx, input.token, now)
  const wasChosen = chosenOf(offer)
  await answered(tx, offer, { state: 'none_fits', chosenFrom: null, answer: input.note, answeredAt: now })
  // What they had chosen of it is agreed no more; what the desk agreed on otherwise stays.
  if (wasChosen && order.windowFrom?.getTime() === wasChosen.from.getTime()) await keepWindow(tx, order, null, null)
  await recordEvent(tx, { accountId: null, name: offer.name }, now, {
    kind: 'window.none',
    siteId: order.siteId,
    orderId: order.id,
    reason: input.note,
    details: { offerId: offer.id, name: offer.name },
  })
  return pageOf(tx, await openOffer(tx, input.token, now), now)
})

/** On the private page of a request: what its own reporter was offered, by the address they reported with. */
export const listTrackedTimes = query(contract.listTrackedTimes, async ({ db, input, now, service }) => {
  const { request, follower } = await requestByLink(db, input.token, now)
  if (follower || !request.reporterEmail) return { rows: [] }
  const answering = await db
    .select({ id: requestOrders.orderId })
    .from(requestOrders)
    .where(eq(requestOrders.requestId, request.joinedToId ?? request.id))
  if (!answering.length) return { rows: [] }
  const rows = await db
    .select({ offer: timeOffers, number: orders.number })
    .from(timeOffers)
    .innerJoin(orders, eq(orders.id, timeOffers.orderId))
    .where(
      and(
        inArray(
          timeOffers.orderId,
          answering.map(({ id }) => id),
        ),
        eq(timeOffers.email, request.reporterEmail),
        ne(timeOffers.state, 'withdrawn'),
      ),
    )
    .orderBy(asc(timeOffers.id))
  return { rows: rows.map(({ offer, number }) => ({ token: service.links.again('times', offer.nonce), number })) }
})
