import { and, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { notFound, query } from '#server/kit'
import { namesAbove } from '#server/places'
import { assets, places } from '../tables'
import { siteByCode } from './siteByCode'

export default query(contract.readCounterSpot, async ({ db, input }) => {
  const site = await siteByCode(db, input.site)
  const [asset] = input.asset
    ? await db
        .select()
        .from(assets)
        .where(and(eq(assets.siteId, site.id), eq(assets.tag, input.asset), isNull(assets.retiredAt)))
    : []
  const wanted = asset ? eq(places.id, asset.placeId) : input.place ? eq(places.code, input.place) : undefined
  const [place] = wanted
    ? await db
        .select()
        .from(places)
        .where(and(eq(places.siteId, site.id), isNull(places.retiredAt), wanted))
    : []
  if (!place) throw notFound('place')
  const within = (await namesAbove(db, [place])).get(place.id)!
  if (!asset) return { placeId: place.id, assetId: null, code: place.code, name: place.name, within }
  return { placeId: place.id, assetId: asset.id, code: asset.tag, name: asset.name, within: [place.name, within].filter(Boolean).join(', ') }
})
