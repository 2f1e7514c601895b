import { eq, inArray } from 'drizzle-orm'
import type { NamedAsset, NamedPlace } from '#contract/requests'
import type { Reader } from '#server/kit'
import { assets, places } from '../tables'

/** A place with the names above it, nearest first. */
export async function namePlace(db: Reader, placeId: number | null): Promise<NamedPlace | null> {
  if (placeId === null) return null
  const [place] = await db.select({ path: places.path }).from(places).where(eq(places.id, placeId))
  return place ? placeAmong(await placesOn(db, place.path), placeId) : null
}

/** The places on a path like "/1/7/31/", the outermost first. One statement. */
export async function placesOn(db: Reader, path: string | null) {
  const ids = (path ?? '').split('/').filter(Boolean).map(Number)
  if (!ids.length) return []
  const rows = await db
    .select({ id: places.id, code: places.code, name: places.name, kind: places.kind, access: places.access })
    .from(places)
    .where(inArray(places.id, ids))
  return rows.sort((a, b) => ids.indexOf(a.id) - ids.indexOf(b.id))
}

/** The innermost of the places on its path: how to get in is written at it, or at the nearest above it that says. The site itself goes unsaid. */
export function placeAmong(onPath: Awaited<ReturnType<typeof placesOn>>, placeId: number | null): NamedPlace | null {
  const place = onPath.at(-1)
  if (!place || place.id !== placeId) return null
  const above = onPath.slice(0, -1).reverse()
  return {
    id: place.id,
    code: place.code,
    name: place.name,
    access: [place, ...above].find((one) => one.access)?.access ?? null,
    within: above
      .filter((one) => one.kind !== 'site')
      .map((one) => one.name)
      .join(', '),
  }
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
