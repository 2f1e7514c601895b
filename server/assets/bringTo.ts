import { and, eq, inArray, like, sql } from 'drizzle-orm'
import { Refusal } from '#core/kit'
import { movedPaths } from '#core/registers'
import type { Tell, Tx } from '#server/kit'
import { ordersFollowAssets, ordersUnderWay } from '#server/orders'
import { plansFollowAssets } from '#server/preventive'
import { requestsFollowAssets } from '#server/requests'
import { assets, places } from '../tables'

type AssetRecord = typeof assets.$inferSelect
type PlaceRecord = typeof places.$inferSelect

/**
 * Brings an asset to a place with what is part of it, the open work on all of it and its preventive plans. At another
 * site all of it goes; at the same one, what stood with it. `parentId` is what it becomes part of there.
 * @throws Refusal when somebody is at work on it, or a tag of it is taken at the other site
 */
export async function bringTo(tx: Tx, tell: Tell, top: AssetRecord, to: PlaceRecord, parentId: number | null): Promise<void> {
  const branch = await tx
    .select()
    .from(assets)
    .where(like(assets.path, `${top.path}%`))
    .for('update')
  const elsewhere = top.siteId !== to.siteId
  const going = branch.filter((one) => elsewhere || one.placeId === top.placeId)
  const ids = going.map((one) => one.id)
  const underWay = await ordersUnderWay(tx, ids)
  if (underWay.length)
    throw new Refusal([{ code: 'under_way', sentence: `Somebody is on ${underWay.join(', ')}, or on the way: let that be finished first, or recall it.` }])
  if (elsewhere) await refuseTaken(tx, going, to)
  const parent = parentId === top.parentId ? undefined : parentId ? await one(tx, parentId) : null
  const paths = parent === undefined ? [] : (movedPaths(branch, top, parent) ?? [])
  for (const { id, path } of paths) await tx.update(assets).set({ path }).where(eq(assets.id, id))
  await tx.update(assets).set({ parentId }).where(eq(assets.id, top.id))
  await tx
    .update(assets)
    .set({ siteId: to.siteId, placeId: to.id, version: sql`${assets.version} + 1` })
    .where(inArray(assets.id, ids))
  await ordersFollowAssets(tx, tell, ids, { siteId: to.siteId, placeId: to.id, code: to.code })
  await requestsFollowAssets(tx, ids, { siteId: to.siteId, placeId: to.id })
  await plansFollowAssets(tx, ids, to)
}

async function one(tx: Tx, id: number) {
  const [row] = await tx.select({ id: assets.id, path: assets.path }).from(assets).where(eq(assets.id, id))
  return row!
}

/** A tag names one asset of a site. */
async function refuseTaken(tx: Tx, going: AssetRecord[], to: PlaceRecord): Promise<void> {
  const tags = going.map((asset) => asset.tag)
  const taken = await tx
    .select({ id: assets.id, tag: assets.tag, name: assets.name })
    .from(assets)
    .where(and(eq(assets.siteId, to.siteId), inArray(assets.tag, tags)))
  if (taken.length)
    throw new Refusal(
      taken.map(({ id, tag, name }) => ({
        code: 'taken',
        sentence: `${tag} is the tag of ${name} there. Give one of them another first.`,
        record: { register: 'assets', id },
      })),
    )
}
