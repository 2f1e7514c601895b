import { eq, inArray } from 'drizzle-orm'
import type { NamedAsset, NamedPlace } from '#contract/requests'
import type { Reader } from '#server/kit'
import { assets, places } from '../tables'

/** A place with the names above it, nearest first. */
export async function namePlace(db: Reader, placeId: number | null): Promise<NamedPlace | null> {
  if (placeId === null) return null
  const [place] = await db.select().from(places).where(eq(places.id, placeId))
  if (!place) return null
  return { id: place.id, code: place.code, name: place.name, access: await accessTo(db, place.path), within: (await namesAbove(db, [place])).get(place.id)! }
}

/** How to get in: what is written at the place, or at the nearest place above it that says. */
async function accessTo(db: Reader, path: string): Promise<string | null> {
  const ids = path.split('/').filter(Boolean).map(Number)
  const rows = await db.select({ id: places.id, access: places.access }).from(places).where(inArray(places.id, ids))
  const notes = new Map(rows.map((row) => [row.id, row.access]))
  return (
    ids
      .reverse()
      .map((id) => notes.get(id))
      .find(Boolean) ?? null
  )
}

export async function nameAsset(db: Reader, assetId: number | null): Promise<NamedAsset | null> {
  if (assetId === null) return null
  const [asset] = await db.select({ id: assets.id, tag: assets.tag, name: assets.name }).from(assets).where(eq(assets.id, assetId))
  return asset ?? null
}

/** "Second floor, Tidehall" for each place, in one statement. The site itself goes unsaid. */
export async function namesAbove(db: Reader, rows: { id: number; path: string }[]): Promise<Map<number, string>> {
  const above = (row: { id: number; path: string }) =>
    row.path
      .split('/')
      .filter(Boolean)
      .map(Number)
      .filter((id) => id !== row.id)
  const wanted = [...new Set(rows.flatMap(above))]
  const found = wanted.length ? await db.select({ id: places.id, name: places.name, kind: places.kind }).from(places).where(inArray(places.id, wanted)) : []
  const names = new Map(found.filter((place) => place.kind !== 'site').map((place) => [place.id, place.name]))
  return new Map(
    rows.map((row) => [
      row.id,
      above(row)
        .reverse()
        .map((id) => names.get(id))
        .filter(Boolean)
        .join(', '),
    ]),
  )
}
