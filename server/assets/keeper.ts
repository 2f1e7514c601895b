import { and, eq, inArray, isNull, like, sql } from 'drizzle-orm'
import { ASSET_FIELDS, OPEN_TRANSFER_STATES } from '#core/assets'
import type { AssetFields } from '#core/assets'
import { counted, foldText } from '#core/kit'
import type { Reason } from '#core/kit'
import { isWithin, movedPaths, pathUnder } from '#core/registers'
import type { Reader, Tx } from '#server/kit'
import { lockTree, takenBy } from '#server/registers'
import type { Keeper, RecordRow } from '#server/registers'
import { assets, orders, places, requests, transfers } from '../tables'

type AssetRow = RecordRow & AssetFields & { path: string; siteId: number }

/** The asset and everything that is part of it. */
const branch = ({ path, id }: { path: string; id: number }) => sql`(select below.id from asset below where below.path like ${path ? `${path}%` : `/${id}/%`})`

/** How assets are kept: a tree beside the places, in which what is part of something goes where that goes. */
export const assetKeeper: Keeper<AssetFields> = {
  register: 'assets',
  table: assets,
  fields: ASSET_FIELDS,
  called: ({ tag, name }) => ({ code: tag, heading: name }),
  orders: (row) => sql`${orders.assetId} in ${branch(row as AssetRow)}`,
  requests: (row) => sql`${requests.assetId} in ${branch(row as AssetRow)}`,

  async refuses(tx, row, was) {
    const [after, before] = [row as AssetRow, was as AssetRow | null]
    const nameOf = (other: Record<string, unknown>) => `${String(other.tag)} ${String(other.name)}`
    const find = { register: 'assets' as const, table: assets, id: after.id }
    const reasons: Reason[] = []
    if (after.tag !== before?.tag)
      reasons.push(
        ...(await takenBy(tx, { ...find, where: and(eq(assets.siteId, after.siteId), eq(assets.tag, after.tag)), field: 'tag', word: after.tag }, nameOf)),
      )
    if (after.serial && (after.serial !== before?.serial || after.maker !== before.maker)) {
      const sameMaker = after.maker ? eq(assets.maker, after.maker) : isNull(assets.maker)
      const where = and(eq(assets.siteId, after.siteId), eq(assets.serial, after.serial), sameMaker)
      reasons.push(...(await takenBy(tx, { ...find, where, field: 'serial', word: `Serial number ${after.serial}` }, nameOf)))
    }
    if (after.parentId && after.parentId !== before?.parentId) {
      await lockTree(tx, after.siteId)
      const [parent] = await tx.select().from(assets).where(eq(assets.id, after.parentId))
      if (before && parent && isWithin(parent, before))
        reasons.push({ code: 'circle', sentence: `${parent.tag} ${parent.name} is part of this one: it cannot be part of its own part.`, field: 'parentId' })
    }
    // Where it goes is being agreed: what was asked would speak of a place it has left.
    if (before && after.placeId !== before.placeId && (await isGoing(tx, after.id)))
      reasons.push({ code: 'going', sentence: 'It is asked for or lent: that has to be over before it is moved by hand.', field: 'placeId' })
    if (after.successorId && after.successorId === after.id)
      reasons.push({ code: 'circle', sentence: 'It cannot be replaced by itself.', field: 'successorId' })
    if (after.warrantyFrom && after.warrantyUntil && after.warrantyUntil < after.warrantyFrom)
      reasons.push({ code: 'backwards', sentence: 'The warranty would end before it begins.', field: 'warrantyUntil' })
    if (after.owner === 'payer' && !after.payerId) reasons.push({ code: 'payer_missing', sentence: 'Say which payer it belongs to.', field: 'payerId' })
    return reasons
  },

  async follows(tx, after) {
    return { searchText: await searchText(tx, after) }
  },

  async settle(tx, row, was) {
    const [after, before] = [row as AssetRow, was as AssetRow | null]
    if (!before) {
      const above = after.parentId ? await pathOf(tx, after.parentId) : null
      await tx
        .update(assets)
        .set({ path: pathUnder(above, after.id) })
        .where(eq(assets.id, after.id))
      return
    }
    const moved = after.parentId !== before.parentId ? await moveBranch(tx, before, after.parentId) : before.path
    if (after.placeId !== before.placeId) await takeAlong(tx, { ...before, path: moved }, after.placeId)
  },

  async holds(db, row) {
    const below = await db
      .select({ id: assets.id })
      .from(assets)
      .where(and(eq(assets.parentId, row.id), isNull(assets.retiredAt)))
    if (await isGoing(db, row.id)) return [{ code: 'going', sentence: 'It is asked for or lent: that has to be over first.' }]
    if (!below.length) return []
    return [
      {
        code: 'has_parts',
        sentence: `${counted(below.length, 'part')} of it ${below.length === 1 ? 'is' : 'are'} still in use. Retire or move ${below.length === 1 ? 'it' : 'them'} first.`,
      },
    ]
  },
}

/** Whether a transfer of it is asked for, or it is out on loan. */
async function isGoing(db: Reader, assetId: number): Promise<boolean> {
  const going = await db
    .select({ id: transfers.id })
    .from(transfers)
    .where(and(eq(transfers.assetId, assetId), inArray(transfers.state, OPEN_TRANSFER_STATES)))
  return going.length > 0
}

async function searchText(tx: Tx, { tag, name, placeId, serial, maker, model }: AssetFields): Promise<string> {
  const [place] = await tx.select({ code: places.code, name: places.name }).from(places).where(eq(places.id, placeId))
  return foldText([tag, name, place?.name, place?.code, serial, maker, model].filter(Boolean).join(' ')).slice(0, 400)
}

async function pathOf(db: Reader, id: number): Promise<string> {
  const [row] = await db.select({ path: assets.path }).from(assets).where(eq(assets.id, id))
  return row!.path
}

/** Moves it with all that is part of it, and answers its new path. */
async function moveBranch(tx: Tx, top: AssetRow, parentId: number | null): Promise<string> {
  const nodes = await tx
    .select({ id: assets.id, path: assets.path })
    .from(assets)
    .where(like(assets.path, `${top.path}%`))
    .for('update')
  const under = parentId ? { id: parentId, path: await pathOf(tx, parentId) } : null
  const paths = movedPaths(nodes, top, under)!
  for (const { id, path } of paths) await tx.update(assets).set({ path }).where(eq(assets.id, id))
  return paths.find((node) => node.id === top.id)!.path
}

/** What is part of it and stood where it stood goes along; what stood elsewhere stays there. */
async function takeAlong(tx: Tx, top: AssetRow, placeId: number): Promise<void> {
  const parts = await tx
    .select()
    .from(assets)
    .where(and(like(assets.path, `${top.path}%`), eq(assets.placeId, top.placeId)))
  const ids = parts.map((part) => part.id)
  if (!ids.length) return
  await tx
    .update(assets)
    .set({ placeId, version: sql`${assets.version} + 1` })
    .where(inArray(assets.id, ids))
  for (const part of parts)
    await tx
      .update(assets)
      .set({ searchText: await searchText(tx, { ...part, placeId }) })
      .where(eq(assets.id, part.id))
}
