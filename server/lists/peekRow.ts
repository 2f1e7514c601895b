import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/lists'
import type { Peek } from '#contract/lists'
import { formatMinor } from '#core/kit'
import { HOLD_REASON_NAMES, ORDER_KIND_NAMES, ORDER_STATE_NAMES } from '#core/orders'
import { CHANNEL_NAMES, PRIORITY_NAMES, REQUEST_STATE_NAMES } from '#core/requests'
import { maySee, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { whoIsOn } from '#server/orders'
import { assets, events, orders, places, requests, sites } from '../tables'

const LONGEST = 600

export default query(contract.peekRow, ({ db, who, input }) => (input.kind === 'orders' ? peekOrder(db, who, input.id) : peekRequest(db, who, input.id)))

async function peekOrder(db: Reader, who: Asker, id: number): Promise<Outgoing<Peek>> {
  const [row] = await db
    .select({ order: orders, place: places, asset: assets, currency: sites.currency, who: whoIsOn })
    .from(orders)
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(assets, eq(assets.id, orders.assetId))
    .where(eq(orders.id, id))
  if (!row || !maySee(who, row.order.siteId)) throw notFound('order')
  const { order, place, asset } = row
  return {
    id,
    number: order.number,
    summary: order.summary,
    description: order.description.slice(0, LONGEST),
    facts: [
      fact(
        'State',
        order.holdReason ? `${ORDER_STATE_NAMES[order.state]}: ${HOLD_REASON_NAMES[order.holdReason].toLowerCase()}` : ORDER_STATE_NAMES[order.state],
      ),
      fact('Kind of work', ORDER_KIND_NAMES[order.kind]),
      fact('Place', place && `${place.code} ${place.name}`),
      fact('Asset', asset && `${asset.tag} ${asset.name}`),
      fact('Who goes', row.who),
      fact('Contact', [order.contactName, order.contactPhone].filter(Boolean).join(', ')),
      fact('Estimate', order.estimateMinor === null ? null : `${formatMinor(order.estimateMinor)} ${row.currency}`),
      fact('Outcome', [order.symptom, order.cause, order.fix].filter(Boolean).join(', ')),
    ].flat(),
    last: await lastOf(db, { orderId: id }),
  }
}

async function peekRequest(db: Reader, who: Asker, id: number): Promise<Outgoing<Peek>> {
  const [row] = await db
    .select({ request: requests, place: places, asset: assets })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .leftJoin(assets, eq(assets.id, requests.assetId))
    .where(eq(requests.id, id))
  if (!row || !maySee(who, row.request.siteId)) throw notFound('request')
  const { request, place, asset } = row
  return {
    id,
    number: request.number,
    summary: request.summary,
    description: request.description.slice(0, LONGEST),
    facts: [
      fact('State', REQUEST_STATE_NAMES[request.state]),
      fact('Priority', request.priority && PRIORITY_NAMES[request.priority]),
      fact('Place', place && `${place.code} ${place.name}`),
      fact('Asset', asset && `${asset.tag} ${asset.name}`),
      fact('Came by', CHANNEL_NAMES[request.channel]),
      fact('Reporter', [request.reporterName, request.reporterPhone, request.reporterEmail].filter(Boolean).join(', ')),
      fact('Wish', request.wish),
      fact('Asked', request.question),
      fact('Declined', request.declineReason),
    ].flat(),
    last: await lastOf(db, { requestId: id }),
  }
}

const fact = (label: string, words: string | null | undefined) => (words ? [{ label, words }] : [])

async function lastOf(db: Reader, { orderId, requestId }: { orderId?: number; requestId?: number }) {
  const [row] = await db
    .select({ at: events.at, who: events.actorName, kind: events.kind, reason: events.reason })
    .from(events)
    .where(and(orderId ? eq(events.orderId, orderId) : undefined, requestId ? eq(events.requestId, requestId) : undefined))
    .orderBy(desc(events.id))
    .limit(1)
  return row ?? null
}
