import { and, asc, eq, isNull, like } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import * as contract from '#contract/places'
import { assets, places } from '../tables'
import { likeText, query, withinSites } from '#server/kit'
import type { Asker, Db } from '#server/kit'
import { matchesWords } from './words'

export default query(contract.findAssets, async ({ db, who, input }) => {
  const limit = input.limit ?? 12
  const at = input.placeId ? eq(assets.placeId, input.placeId) : undefined
  // Who types the beginning of a tag is answered by the index of tags; words stand anywhere, and take longer.
  const tag = (input.q ?? '').trim()
  const byTag = tag && !input.placeId ? await find(db, who, like(assets.tag, `${likeText(tag)}%`), limit) : []
  if (byTag.some((row) => row.tag.toLowerCase() === tag.toLowerCase())) return { rows: byTag }
  return { rows: await find(db, who, and(matchesWords(assets.searchText, input.q), at), limit) }
})

/** Which ones is answered by the index asset_find alone; only the rows shown are then read. */
function find(db: Db, who: Asker, where: SQL | undefined, limit: number) {
  const found = db
    .select({ id: assets.id })
    .from(assets)
    .where(and(where, isNull(assets.retiredAt), withinSites(who, assets.siteId)))
    .orderBy(asc(assets.tag))
    .limit(limit)
    .as('found')
  return db
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
    .from(found)
    .innerJoin(assets, eq(assets.id, found.id))
    .innerJoin(places, eq(places.id, assets.placeId))
    .orderBy(asc(assets.tag))
}
