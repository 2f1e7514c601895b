import { inArray } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import { query } from '#server/kit'
import type { Reader } from '#server/kit'
import { seenRecord } from '#server/registers'
import { assets, places } from '../tables'
import { KEEPERS } from './keepers'
import type { Found } from './tree'

export default query(contract.readTreePath, async ({ db, who, input }) => {
  const row = await seenRecord(db, KEEPERS[input.under === 'place' ? 'places' : 'assets'], who, input.id)
  const nodes = input.under === 'place' ? await placesOnPath(db, String(row.path)) : await assetsOnPath(db, String(row.path))
  return { nodes: nodes.map(({ path: _, ...node }) => node) }
})

const idsOn = (path: string) => path.split('/').filter(Boolean).map(Number)

async function placesOnPath(db: Reader, path: string): Promise<Found[]> {
  const ids = idsOn(path)
  const rows = await db.select({ id: places.id, code: places.code, name: places.name, path: places.path }).from(places).where(inArray(places.id, ids))
  return ids.flatMap((id) => rows.filter((row) => row.id === id)).map((row) => ({ type: 'place' as const, ...row }))
}

/** The places around the outermost asset, then the assets down to this one. */
async function assetsOnPath(db: Reader, path: string): Promise<Found[]> {
  const ids = idsOn(path)
  const rows = await db
    .select({ id: assets.id, code: assets.tag, name: assets.name, path: assets.path, placeId: assets.placeId })
    .from(assets)
    .where(inArray(assets.id, ids))
  const line = ids.flatMap((id) => rows.filter((row) => row.id === id))
  const [place] = await db
    .select({ path: places.path })
    .from(places)
    .where(inArray(places.id, [line[0]!.placeId]))
  return [...(await placesOnPath(db, place!.path)), ...line.map(({ placeId: _, ...row }) => ({ type: 'asset' as const, ...row }))]
}
