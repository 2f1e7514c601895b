import { and, asc, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/places'
import { assets, places } from '../tables'
import { query, withinSites } from '#server/kit'
import { matchesWords } from './words'

export default query(contract.findAssets, async ({ db, who, input }) => ({
  rows: await db
    .select({
      id: assets.id,
      tag: assets.tag,
      name: assets.name,
      classCode: assets.classCode,
      placeId: assets.placeId,
      placeCode: places.code,
      placeName: places.name,
      warrantyUntil: assets.warrantyUntil,
    })
    .from(assets)
    .innerJoin(places, eq(places.id, assets.placeId))
    .where(
      and(
        matchesWords(assets.searchText, input.q),
        isNull(assets.retiredAt),
        input.placeId ? eq(assets.placeId, input.placeId) : undefined,
        withinSites(who, assets.siteId),
      ),
    )
    .orderBy(asc(assets.tag))
    .limit(input.limit ?? 12),
}))
