import { and, asc, desc, eq, inArray, isNotNull, isNull, notInArray, or } from 'drizzle-orm'
import type { KnownRequest } from '#contract/requests'
import { OVER_STATES, SEEN_IN_FIELD } from '#core/orders'
import type { OrderKind } from '#core/orders'
import { rankTwins, UNDECIDED_STATES } from '#core/requests'
import type { Progress } from '#core/requests'
import type { Db, Outgoing, Service } from '#server/kit'
import { namePlace } from '#server/places'
import { categories, orders, places, requestOrders, requests } from '../tables'
import { idsOf } from './askPrecedents'
import { kindOfTrouble } from './kindOfTrouble'
import type { SiteRecord } from './siteByCode'
import { ordersAnswering, progressIn } from './tracked'

interface Where {
  placeId: number
  assetId: number | null
  /** Those most like these words first; without any, the newest. */
  words: string
  most: number
}

/** What is open at a place or on an asset, as anybody may know it: nothing of who reported it. */
export async function knownHere(
  db: Db,
  service: Service,
  site: SiteRecord,
  { placeId, assetId, words, most }: Where,
  now: Date,
): Promise<Outgoing<KnownRequest>[]> {
  const open = await openHere(db, site.id, placeId, assetId)
  const ranked = rankTwins(
    words,
    open.map((row) => ({ ...row, text: row.summary })),
  ).slice(0, most)
  const linked = await ordersAnswering(
    db,
    ranked.map((row) => row.id),
  )
  return Promise.all(
    ranked.map(async (row) => ({
      id: row.id,
      // Until the desk has read it, a stranger's own words may say more than strangers should know.
      summary: row.takenUpAt ? row.summary : await kindOfTrouble(db, service, { ...row, placePath: idsOf(row.path) }),
      place: (await namePlace(db, row.placeId))?.name ?? '',
      since: row.receivedAt,
      progress: await progressIn(
        db,
        row,
        linked.filter((order) => order.requestId === row.id),
        site.zone,
        now,
        false,
      ),
    })),
  )
}

/** Open requests at the place or on the asset: not decided yet, or accepted and not finished. */
async function openHere(db: Db, siteId: number, placeId: number, assetId: number | null) {
  const rows = await db
    .select({
      id: requests.id,
      state: requests.state,
      summary: requests.summary,
      description: requests.description,
      placeId: requests.placeId,
      assetId: requests.assetId,
      path: places.path,
      receivedAt: requests.receivedAt,
      takenUpAt: requests.takenUpAt,
      declineReason: requests.declineReason,
      question: requests.question,
      category: categories.name,
    })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .leftJoin(categories, eq(categories.id, requests.categoryId))
    .leftJoin(requestOrders, eq(requestOrders.requestId, requests.id))
    .leftJoin(orders, eq(orders.id, requestOrders.orderId))
    .where(
      and(
        eq(requests.siteId, siteId),
        assetId ? or(eq(requests.placeId, placeId), eq(requests.assetId, assetId)) : eq(requests.placeId, placeId),
        or(inArray(requests.state, UNDECIDED_STATES), and(eq(requests.state, 'accepted'), isNotNull(orders.id), notInArray(orders.state, OVER_STATES))),
      ),
    )
    .orderBy(desc(requests.receivedAt))
    .limit(40)
  return rows.filter((row, index) => rows.findIndex((one) => one.id === row.id) === index)
}

const MOST_PLANNED = 10

/** Work at a place or on an asset that nobody reported, once it is approved: what it is and how it goes, no more. */
export async function workHere(
  db: Db,
  site: SiteRecord,
  { placeId, assetId }: Pick<Where, 'placeId' | 'assetId'>,
  now: Date,
): Promise<{ id: number; kind: OrderKind; progress: Progress }[]> {
  const rows = await db
    .select({ id: orders.id, kind: orders.kind, state: orders.state, holdReason: orders.holdReason, fix: orders.fix })
    .from(orders)
    .leftJoin(requestOrders, eq(requestOrders.orderId, orders.id))
    .where(
      and(
        eq(orders.siteId, site.id),
        assetId ? eq(orders.assetId, assetId) : eq(orders.placeId, placeId),
        isNull(requestOrders.orderId),
        isNull(orders.discardedAt),
        inArray(orders.state, SEEN_IN_FIELD),
        notInArray(orders.state, ['done', ...OVER_STATES]),
      ),
    )
    .orderBy(asc(orders.id))
    .limit(MOST_PLANNED)
  const accepted = { state: 'accepted' as const, declineReason: null, question: null }
  return Promise.all(
    rows.map(async ({ kind, ...order }) => ({
      id: order.id,
      kind,
      progress: await progressIn(db, accepted, [{ ...order, requestId: 0, onTheWay: false }], site.zone, now, false),
    })),
  )
}
