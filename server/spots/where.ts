import { and, eq, isNull } from 'drizzle-orm'
import { refuse } from '#core/kit'
import { notFound } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { assets, places, sites } from '../tables'

export interface Where {
  placeId?: number
  assetId?: number
  code?: string
}
export type SiteRecord = typeof sites.$inferSelect
export type PlaceRecord = typeof places.$inferSelect
export type AssetRecord = typeof assets.$inferSelect
export interface Spot {
  place: PlaceRecord
  asset: AssetRecord | null
}

/** The site whoever asks works at. @throws ProblemReply 404 for somebody who works at none */
export async function siteOf(db: Reader, who: Asker): Promise<SiteRecord> {
  const [site] = who.homeSiteId === null ? [] : await db.select().from(sites).where(eq(sites.id, who.homeSiteId))
  if (!site) throw notFound('site')
  return site
}

const inUse = (site: SiteRecord, where: ReturnType<typeof eq>) => and(eq(places.siteId, site.id), isNull(places.retiredAt), where)

/** Where it is meant, in use at this site: by id, or by a whole tag or code; an asset says its place. Null where nobody knows it. */
export async function spotOf(db: Reader, site: SiteRecord, { placeId, assetId, code }: Where): Promise<Spot | null> {
  const byAsset = assetId !== undefined ? eq(assets.id, assetId) : code && placeId === undefined ? eq(assets.tag, code) : null
  if (byAsset) {
    const [found] = await db
      .select({ asset: assets, place: places })
      .from(assets)
      .innerJoin(places, eq(places.id, assets.placeId))
      .where(and(eq(assets.siteId, site.id), isNull(assets.retiredAt), byAsset))
    if (found) return found
    if (assetId !== undefined) return null
  }
  const byPlace = placeId !== undefined ? eq(places.id, placeId) : code ? eq(places.code, code) : null
  const [place] = byPlace ? await db.select().from(places).where(inUse(site, byPlace)) : []
  return place ? { place, asset: null } : null
}

/** The same for what has to be known. @throws Refusal at `placeId` or `assetId` */
export async function knownSpot(db: Reader, site: SiteRecord, where: Where): Promise<Spot> {
  const spot = await spotOf(db, site, where)
  if (!spot) refuse('spot_unknown', 'It is not in use at this site. Find it by its name or code.', where.assetId === undefined ? 'placeId' : 'assetId')
  return spot
}
