import { and, eq, inArray, sql } from 'drizzle-orm'
import type { AssetFields } from '#core/assets'
import { foldText } from '#core/kit'
import type { Tx } from '#server/kit'
import { assets } from '../tables'

export interface NewAsset extends Partial<Omit<AssetFields, 'tag' | 'name' | 'placeId' | 'parentId'>>, Pick<AssetFields, 'tag' | 'name' | 'placeId'> {
  /** For the words it is found by. */
  place: { code: string; name: string }
}

const AT_ONCE = 400

/**
 * Makes many assets of a site at once, none of them part of another. Whoever calls has held them against the rules
 * (`assetKeeper.refuses`). @returns their ids by tag @throws when a tag is taken meanwhile
 */
export async function insertAssets(tx: Tx, siteId: number, rows: NewAsset[]): Promise<Map<string, number>> {
  const ids = new Map<string, number>()
  for (let at = 0; at < rows.length; at += AT_ONCE) {
    const some = rows.slice(at, at + AT_ONCE)
    await tx.insert(assets).values(
      some.map(({ place, ...row }) => ({
        ...row,
        siteId,
        searchText: foldText([row.tag, row.name, place.name, place.code, row.serial, row.maker, row.model].filter(Boolean).join(' ')).slice(0, 400),
      })),
    )
    const made = await tx
      .select({ id: assets.id, tag: assets.tag })
      .from(assets)
      .where(
        and(
          eq(assets.siteId, siteId),
          inArray(
            assets.tag,
            some.map(({ tag }) => tag),
          ),
        ),
      )
    for (const { id, tag } of made) ids.set(tag, id)
    await tx
      .update(assets)
      .set({ path: sql`concat('/', ${assets.id}, '/')` })
      .where(
        inArray(
          assets.id,
          made.map(({ id }) => id),
        ),
      )
  }
  return ids
}
