import { and, desc, eq, inArray, isNotNull, notInArray, or } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { rankTwins, UNDECIDED_STATES } from '#core/requests'
import { articlesFor, bulletinsAt } from '#server/help'
import { query } from '#server/kit'
import { namePlace } from '#server/places'
import { OVER_STATES } from '#core/orders'
import { categories, orders, places, requestOrders, requests } from '../tables'
import { idsOf } from './askPrecedents'
import { kindOfTrouble } from './kindOfTrouble'
import { siteByCode } from './siteByCode'
import { ordersAnswering, progressIn } from './tracked'

const MOST = 5

export default query(contract.readAround, async ({ db, input, now, service }) => {
  const site = await siteByCode(db, input.site)
  const [place] = input.placeId
    ? await db
        .select()
        .from(places)
        .where(and(eq(places.id, input.placeId), eq(places.siteId, site.id)))
    : []
  const open = place ? await openHere(db, site.id, place.id, input.assetId ?? null) : []
  const ranked = rankTwins(
    input.words ?? '',
    open.map((row) => ({ ...row, text: row.summary })),
  ).slice(0, MOST)
  const linked = await ordersAnswering(
    db,
    ranked.map((row) => row.id),
  )
  const known = await Promise.all(
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
  return {
    requests: known,
    bulletins: await bulletinsAt(db, site.id, place?.id ?? null, now),
    articles: await articlesFor(db, site.id, input.words ?? '', input.categoryId ?? null),
  }
})

/** Open requests at the place or on the asset: not decided yet, or accepted and not finished. */
async function openHere(db: Parameters<Parameters<typeof query>[1]>[0]['db'], siteId: number, placeId: number, assetId: number | null) {
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
