import { and, asc, count, eq, inArray, isNull, ne, sql } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import MiniSearch from 'minisearch'
import { foldText } from '#core/kit'
import type { Reader } from '#server/kit'
import { assets, places } from '../tables'
import { namesAbove } from './namePlace'
import { matchesWords } from './words'

/** A place, or an asset with the place it stands in. */
export interface Spot {
  placeId: number
  assetId: number | null
  code: string
  name: string
  within: string
}

const MOST = 12

/**
 * Places and assets of a site that fit the words, those near another place first. Whole words are
 * looked for in SQL; only when that finds nothing, words with a typing error are.
 */
export async function findSpots(db: Reader, siteId: number, search: string, nearId?: number): Promise<Spot[]> {
  const exact = await spotsWhere(db, siteId, { search })
  const found = exact.length || !foldText(search) ? exact : await spotsWhere(db, siteId, await misspelt(db, siteId, search))
  return nearId ? nearFirst(db, found, nearId) : found
}

/** What is close at hand before a word is typed: the place itself, then those on its floor. */
export async function spotsNear(db: Reader, siteId: number, nearId: number): Promise<Spot[]> {
  const [near] = await db
    .select()
    .from(places)
    .where(and(eq(places.id, nearId), eq(places.siteId, siteId), isNull(places.retiredAt)))
  if (!near) return []
  const rows = await db
    .select()
    .from(places)
    .where(and(eq(places.siteId, siteId), isNull(places.retiredAt), near.parentId ? eq(places.parentId, near.parentId) : eq(places.id, near.id)))
    .orderBy(asc(places.code))
    .limit(MOST)
  return asSpots(db, [near, ...rows.filter((row) => row.id !== near.id)].slice(0, MOST), [])
}

async function spotsWhere(
  db: Reader,
  siteId: number,
  { search, placeIds, assetIds }: { search?: string; placeIds?: number[]; assetIds?: number[] },
): Promise<Spot[]> {
  const placeRows =
    placeIds?.length === 0
      ? []
      : await db
          .select()
          .from(places)
          .where(
            and(
              eq(places.siteId, siteId),
              isNull(places.retiredAt),
              ne(places.kind, 'site'),
              placeIds ? inArray(places.id, placeIds) : matchesWords(places.searchText, search),
            ),
          )
          .orderBy(exactFirst(places.code, search), asc(places.code))
          .limit(MOST)
  const assetRows =
    assetIds?.length === 0 || (!assetIds && !foldText(search ?? ''))
      ? []
      : await db
          .select({ asset: assets, place: places })
          .from(assets)
          .innerJoin(places, eq(places.id, assets.placeId))
          .where(and(eq(assets.siteId, siteId), isNull(assets.retiredAt), assetIds ? inArray(assets.id, assetIds) : matchesWords(assets.searchText, search)))
          .orderBy(exactFirst(assets.tag, search), asc(assets.tag))
          .limit(MOST)
  const spots = await asSpots(db, placeRows, assetRows)
  const meant = bare(search ?? '').toLowerCase()
  const exact = (spot: Spot) => Number(bare(spot.code).toLowerCase() === meant)
  return spots.sort((a, b) => exact(b) - exact(a)).slice(0, MOST)
}

/** Who types a whole code means that one. */
const exactFirst = (column: MySqlColumn, search: string | undefined) => sql`replace(replace(${column}, '-', ''), ' ', '') <> ${bare(search ?? '')}`
/** A code without what joins its parts: "GAN204" and "gan-204" are the same one. */
const bare = (code: string) => code.replace(/[\s-]/g, '')

type PlaceRow = typeof places.$inferSelect
async function asSpots(db: Reader, placeRows: PlaceRow[], assetRows: { asset: typeof assets.$inferSelect; place: PlaceRow }[]): Promise<Spot[]> {
  const within = await namesAbove(db, [...placeRows, ...assetRows.map((row) => row.place)])
  const spots = [
    ...placeRows.map((place): Spot => ({ placeId: place.id, assetId: null, code: place.code, name: place.name, within: within.get(place.id)! })),
    ...assetRows.map(({ asset, place }): Spot => ({
      placeId: place.id,
      assetId: asset.id,
      code: asset.tag,
      name: asset.name,
      within: [place.name, within.get(place.id)].filter(Boolean).join(', '),
    })),
  ]
  return spots
}

async function nearFirst(db: Reader, spots: Spot[], nearId: number): Promise<Spot[]> {
  const rows = await db
    .select({ id: places.id, path: places.path })
    .from(places)
    .where(inArray(places.id, [nearId, ...spots.map((spot) => spot.placeId)]))
  const paths = new Map(rows.map((row) => [row.id, row.path.split('/').filter(Boolean)]))
  const near = paths.get(nearId) ?? []
  const shared = (spot: Spot) => (paths.get(spot.placeId) ?? []).filter((id, depth) => near[depth] === id).length
  return [...spots].sort((a, b) => shared(b) - shared(a))
}

interface Words {
  id: string
  words: string
}
/** What becomes another when a word of any row does. */
const sumOf = (id: MySqlColumn, words: MySqlColumn) => sql<string>`coalesce(sum(crc32(concat(${id}, ' ', ${words}))), 0)`
const indexes = new Map<number, { mark: string; index: MiniSearch<Words> }>()

/** Ids of places and assets whose words are a typing error away. The index is made once, and again when any of the words changed. */
async function misspelt(db: Reader, siteId: number, search: string): Promise<{ placeIds: number[]; assetIds: number[] }> {
  const [[placeMark], [assetMark]] = await Promise.all([
    db
      .select({ n: count(), words: sumOf(places.id, places.searchText) })
      .from(places)
      .where(eq(places.siteId, siteId)),
    db
      .select({ n: count(), words: sumOf(assets.id, assets.searchText) })
      .from(assets)
      .where(eq(assets.siteId, siteId)),
  ])
  const mark = JSON.stringify([placeMark, assetMark])
  let known = indexes.get(siteId)
  if (known?.mark !== mark) {
    const index = new MiniSearch<Words>({ fields: ['words'], processTerm: (term) => foldText(term) || null })
    const [placeRows, assetRows] = await Promise.all([
      db
        .select({ id: places.id, words: places.searchText })
        .from(places)
        .where(and(eq(places.siteId, siteId), ne(places.kind, 'site'))),
      db.select({ id: assets.id, words: assets.searchText }).from(assets).where(eq(assets.siteId, siteId)),
    ])
    await index.addAllAsync([
      ...placeRows.map((row) => ({ id: `p${row.id}`, words: row.words })),
      ...assetRows.map((row) => ({ id: `a${row.id}`, words: row.words })),
    ])
    known = { mark, index }
    indexes.set(siteId, known)
  }
  const found = known.index.search(search, { fuzzy: 0.25, prefix: true, combineWith: 'AND' }).map((row) => row.id as string)
  const ids = (letter: string) => found.filter((id) => id.startsWith(letter)).map((id) => Number(id.slice(1)))
  // A room is named more often than the machines in it, of which there are more.
  const placeIds = ids('p').slice(0, (MOST * 2) / 3)
  return { placeIds, assetIds: ids('a').slice(0, MOST - placeIds.length) }
}
