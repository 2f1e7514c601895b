import { and, asc, eq, gt, inArray, isNull, notInArray, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { TreeNode } from '#contract/portraits'
import { OVER_STATES } from '#core/orders'
import { decodeCursor, encodeCursor, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { isLate } from '#server/registers'
import { assets, orders, places } from '../tables'

type Badge = { open: number; late: number }
export type Found = { type: 'place' | 'asset'; id: number; code: string; name: string; path: string }

const PLACE = { id: places.id, code: places.code, name: places.name, path: places.path }
const ASSET = { id: assets.id, code: assets.tag, name: assets.name, path: assets.path }

/** The sites at the top of the tree. */
export async function topOfTree(db: Reader, who: Asker): Promise<Found[]> {
  const rows = await db
    .select(PLACE)
    .from(places)
    .where(and(isNull(places.parentId), isNull(places.retiredAt), withinSites(who, places.siteId)))
    .orderBy(asc(places.code))
  return rows.map((row) => ({ type: 'place' as const, ...row }))
}

/** What stands directly in a place: places first, then assets that are no part of another; of an asset, its parts. */
export async function childrenOf(
  db: Reader,
  under: { type: 'place' | 'asset'; id: number },
  { after, limit }: { after?: string; limit: number },
): Promise<{ rows: Found[]; next: string | null }> {
  const [stage, code, id] = after ? (decodeCursor(after, ['text', 'text', 'integer']) as [string, string, number]) : ['place', '', 0]
  const rows: Found[] = []
  if (under.type === 'place' && stage === 'place') {
    const beyond = after ? or(gt(places.code, code), and(eq(places.code, code), gt(places.id, id))) : undefined
    const found = await db
      .select(PLACE)
      .from(places)
      .where(and(eq(places.parentId, under.id), isNull(places.retiredAt), beyond))
      .orderBy(asc(places.code), asc(places.id))
      .limit(limit + 1)
    rows.push(...found.map((row) => ({ type: 'place' as const, ...row })))
  }
  if (rows.length <= limit) {
    const beyond = after && stage === 'asset' ? or(gt(assets.tag, code), and(eq(assets.tag, code), gt(assets.id, id))) : undefined
    // A part that stands elsewhere than what it is part of is found there, and under what it is part of.
    const directly = under.type === 'asset' ? eq(assets.parentId, under.id) : and(eq(assets.placeId, under.id), isNull(assets.parentId))
    const found = await db
      .select(ASSET)
      .from(assets)
      .where(and(directly, isNull(assets.retiredAt), beyond))
      .orderBy(asc(assets.tag), asc(assets.id))
      .limit(limit + 1 - rows.length)
    rows.push(...found.map((row) => ({ type: 'asset' as const, ...row })))
  }
  const page = rows.slice(0, limit)
  const last = page.at(-1)
  return { rows: page, next: rows.length > limit && last ? encodeCursor([last.type, last.code, last.id]) : null }
}

/** The same nodes with how many stand in each and how much work is open on each branch. Three statements at once. */
export async function withBadges(db: Reader, who: Asker, nodes: Found[], now: Date): Promise<TreeNode[]> {
  const [inPlaces, inAssets] = [nodes.filter((node) => node.type === 'place'), nodes.filter((node) => node.type === 'asset')]
  const [below, placeBadges, assetBadges] = await Promise.all([
    countBelow(db, inPlaces, inAssets),
    inPlaces.length ? badgesOfPlaces(db, who, inPlaces, now) : new Map<number, Badge>(),
    inAssets.length ? badgesOfAssets(db, who, inAssets, now) : new Map<number, Badge>(),
  ])
  return nodes.map(({ path: _, ...node }) => ({
    ...node,
    below: below.get(`${node.type} ${node.id}`) ?? 0,
    ...((node.type === 'place' ? placeBadges : assetBadges).get(node.id) ?? { open: 0, late: 0 }),
  }))
}

async function countBelow(db: Reader, inPlaces: Found[], inAssets: Found[]): Promise<Map<string, number>> {
  const n = sql<string>`count(*)`
  const ids = (nodes: Found[]) => nodes.map((node) => node.id)
  const [rooms, standing, parts] = await Promise.all([
    inPlaces.length
      ? db
          .select({ id: places.parentId, n })
          .from(places)
          .where(and(inArray(places.parentId, ids(inPlaces)), isNull(places.retiredAt)))
          .groupBy(places.parentId)
      : [],
    inPlaces.length
      ? db
          .select({ id: assets.placeId, n })
          .from(assets)
          .where(and(inArray(assets.placeId, ids(inPlaces)), isNull(assets.parentId), isNull(assets.retiredAt)))
          .groupBy(assets.placeId)
      : [],
    inAssets.length
      ? db
          .select({ id: assets.parentId, n })
          .from(assets)
          .where(and(inArray(assets.parentId, ids(inAssets)), isNull(assets.retiredAt)))
          .groupBy(assets.parentId)
      : [],
  ])
  const counts = new Map<string, number>()
  const add = (key: string, by: string) => counts.set(key, (counts.get(key) ?? 0) + Number(by))
  for (const row of [...rooms, ...standing]) add(`place ${row.id}`, row.n)
  for (const row of parts) add(`asset ${row.id}`, row.n)
  return counts
}

const isOpen = (who: Asker) => and(notInArray(orders.state, OVER_STATES), isNull(orders.discardedAt), withinSites(who, orders.siteId))

/**
 * From the open orders up rather than from the tree down: there are few of them, however large the tree. Brothers
 * share the path above them, so the next id on an order's path says which branch it is on.
 */
async function badgesOfPlaces(db: Reader, who: Asker, nodes: Found[], now: Date): Promise<Map<number, Badge>> {
  const own = alias(assets, 'own_asset')
  const at = alias(places, 'at_place')
  return badges(branchOn(sql`${at.path}`, nodes), now, (columns) =>
    db
      .select(columns)
      .from(orders)
      .leftJoin(own, eq(own.id, orders.assetId))
      .innerJoin(at, sql`${at.id} = coalesce(${orders.placeId}, ${own.placeId})`)
      .where(isOpen(who))
      .groupBy(sql`branch`),
  )
}

async function badgesOfAssets(db: Reader, who: Asker, nodes: Found[], now: Date): Promise<Map<number, Badge>> {
  const at = alias(assets, 'at_asset')
  return badges(branchOn(sql`${at.path}`, nodes), now, (columns) =>
    db
      .select(columns)
      .from(orders)
      .innerJoin(at, eq(at.id, orders.assetId))
      .where(isOpen(who))
      .groupBy(sql`branch`),
  )
}

type BadgeColumns = {
  branch: SQL.Aliased<string>
  open: SQL<string>
  late: SQL<string>
}

/** The id of the path that stands at the depth of these nodes, all of one depth. */
function branchOn(path: SQL, nodes: Found[]): SQL.Aliased<string> {
  const depth = nodes[0]!.path.split('/').filter(Boolean).length
  return sql<string>`substring_index(substring_index(${path}, '/', ${depth + 1}), '/', -1)`.as('branch')
}

async function badges(
  branch: SQL.Aliased<string>,
  now: Date,
  read: (columns: BadgeColumns) => PromiseLike<{ branch: string; open: string; late: string }[]>,
): Promise<Map<number, Badge>> {
  const rows = await read({ branch, open: sql<string>`count(*)`, late: sql<string>`coalesce(sum(${isLate(now)}), 0)` })
  return new Map(rows.map((row) => [Number(row.branch), { open: Number(row.open), late: Number(row.late) }]))
}
