import { and, count, desc, eq, gte, inArray, isNull, ne, notInArray, or } from 'drizzle-orm'
import * as contract from '#contract/places'
import type { Context } from '#contract/places'
import { assets, orders, people, places, requests } from '../tables'
import { maySee, notFound, query, withinSites } from '#server/kit'
import type { Asker, Db, Outgoing } from '#server/kit'
import { costByOrder } from '#server/ledger'
import { underWarranty } from '#core/assets'
import { FINISHED_STATES, OVER_STATES } from '#core/orders'
import { UNDECIDED_STATES } from '#core/requests'
import { namePlace } from './namePlace'

const REPEAT_DAYS = 90

export default query(contract.readContext, async ({ db, who, input, now }) => {
  const placeId = input.placeId ?? null
  const assetId = input.assetId ?? null
  await refuseForeign(db, who, placeId, assetId)
  const [place, asset, reporter, open, history] = await Promise.all([
    placeContext(db, who, placeId),
    assetContext(db, who, assetId, now),
    reporterContext(db, who, input.requestId ?? null),
    openNearby(db, who, { placeId, assetId, requestId: input.requestId ?? 0, orderId: input.orderId ?? 0 }),
    historyOf(db, who, placeId, assetId, input.orderId ?? 0),
  ])
  return { place, asset, reporter, open, history }
})

/** @throws ProblemReply 404 for a place or an asset of a site that is not theirs */
async function refuseForeign(db: Db, who: Asker, placeId: number | null, assetId: number | null): Promise<void> {
  const [place] = placeId === null ? [] : await db.select({ siteId: places.siteId }).from(places).where(eq(places.id, placeId))
  if (placeId !== null && !(place && maySee(who, place.siteId))) throw notFound('place')
  const [asset] = assetId === null ? [] : await db.select({ siteId: assets.siteId }).from(assets).where(eq(assets.id, assetId))
  if (assetId !== null && !(asset && maySee(who, asset.siteId))) throw notFound('asset')
}

async function placeContext(db: Db, who: Asker, placeId: number | null): Promise<Context['place']> {
  const place = await namePlace(db, placeId)
  if (!place) return null
  const [openOrders] = await db
    .select({ n: count() })
    .from(orders)
    .where(and(eq(orders.placeId, place.id), notInArray(orders.state, OVER_STATES), isNull(orders.discardedAt), withinSites(who, orders.siteId)))
  const [openRequests] = await db
    .select({ n: count() })
    .from(requests)
    .where(and(eq(requests.placeId, place.id), inArray(requests.state, UNDECIDED_STATES), withinSites(who, requests.siteId)))
  return { ...place, openOrders: openOrders!.n, openRequests: openRequests!.n }
}

async function assetContext(db: Db, who: Asker, assetId: number | null, now: Date): Promise<Context['asset']> {
  if (assetId === null) return null
  const [asset] = await db
    .select()
    .from(assets)
    .where(and(eq(assets.id, assetId), withinSites(who, assets.siteId)))
  if (!asset) return null
  const since = new Date(now.getTime() - REPEAT_DAYS * 86_400_000)
  const [repairs] = await db
    .select({ n: count() })
    .from(orders)
    .where(and(eq(orders.assetId, assetId), inArray(orders.kind, ['repair', 'call_back']), gte(orders.createdAt, since), ne(orders.state, 'cancelled')))
  const { id, tag, name, maker, model, installedOn, warrantyFrom, warrantyUntil, warrantyCovers, warrantyTerms } = asset
  return {
    id,
    tag,
    name,
    maker,
    model,
    installedOn,
    warrantyFrom,
    warrantyUntil,
    warrantyCovers,
    warrantyTerms,
    underWarranty: underWarranty(asset, now.toISOString().slice(0, 10)),
    repairs90Days: repairs!.n,
  }
}

async function reporterContext(db: Db, who: Asker, requestId: number | null): Promise<Outgoing<Context['reporter']>> {
  if (requestId === null) return null
  const [request] = await db
    .select()
    .from(requests)
    .where(and(eq(requests.id, requestId), withinSites(who, requests.siteId)))
  if (!request || !(request.reporterName || request.reporterEmail || request.reporterId)) return null
  const [person] = request.reporterId ? await db.select().from(people).where(eq(people.id, request.reporterId)) : []
  const same = or(
    request.reporterId ? eq(requests.reporterId, request.reporterId) : undefined,
    request.reporterEmail ? eq(requests.reporterEmail, request.reporterEmail) : undefined,
  )
  const earlier = same
    ? await db
        .select({ id: requests.id, number: requests.number, summary: requests.summary, state: requests.state, receivedAt: requests.receivedAt })
        .from(requests)
        .where(and(same, ne(requests.id, requestId), withinSites(who, requests.siteId)))
        .orderBy(desc(requests.receivedAt))
        .limit(3)
    : []
  return {
    name: person?.name ?? request.reporterName ?? request.reporterEmail!,
    email: person?.email ?? request.reporterEmail,
    phone: person?.phone ?? request.reporterPhone,
    title: person?.title ?? null,
    earlier,
  }
}

async function openNearby(
  db: Db,
  who: Asker,
  at: { placeId: number | null; assetId: number | null; requestId: number; orderId: number },
): Promise<Outgoing<Context['open']>> {
  if (at.placeId === null && at.assetId === null) return []
  const openOrders = await db
    .select({ id: orders.id, number: orders.number, summary: orders.summary, state: orders.state, at: orders.createdAt })
    .from(orders)
    .where(
      and(
        or(at.placeId ? eq(orders.placeId, at.placeId) : undefined, at.assetId ? eq(orders.assetId, at.assetId) : undefined),
        notInArray(orders.state, OVER_STATES),
        ne(orders.id, at.orderId),
        isNull(orders.discardedAt),
        withinSites(who, orders.siteId),
      ),
    )
    .orderBy(desc(orders.createdAt))
    .limit(5)
  const openRequests = await db
    .select({ id: requests.id, number: requests.number, summary: requests.summary, state: requests.state, at: requests.receivedAt })
    .from(requests)
    .where(
      and(
        or(at.placeId ? eq(requests.placeId, at.placeId) : undefined, at.assetId ? eq(requests.assetId, at.assetId) : undefined),
        inArray(requests.state, UNDECIDED_STATES),
        ne(requests.id, at.requestId),
        withinSites(who, requests.siteId),
      ),
    )
    .orderBy(desc(requests.receivedAt))
    .limit(5)
  return [...openRequests.map((row) => ({ type: 'request' as const, ...row })), ...openOrders.map((row) => ({ type: 'order' as const, ...row }))]
}

async function historyOf(db: Db, who: Asker, placeId: number | null, assetId: number | null, orderId: number): Promise<Outgoing<Context['history']>> {
  if (placeId === null && assetId === null) return []
  const rows = await db
    .select({ id: orders.id, number: orders.number, summary: orders.summary, finishedAt: orders.finishedAt, cause: orders.cause, fix: orders.fix })
    .from(orders)
    .where(
      and(
        assetId ? eq(orders.assetId, assetId) : eq(orders.placeId, placeId!),
        inArray(orders.state, FINISHED_STATES),
        ne(orders.id, orderId),
        withinSites(who, orders.siteId),
      ),
    )
    .orderBy(desc(orders.createdAt))
    .limit(6)
  const costs = await costByOrder(
    db,
    rows.map((row) => row.id),
  )
  return rows.map((row) => ({ ...row, costMinor: costs.get(row.id) ?? 0 }))
}
