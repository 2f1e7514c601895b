import { and, asc, eq, gt, inArray, isNotNull, isNull, like, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { TreeNode } from '#contract/portraits'
import { OPEN_STATES } from '#core/orders'
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

const isOpen = (who: Asker) => and(inArray(orders.state, [...OPEN_STATES]), isNull(orders.discardedAt), withinSites(who, orders.siteId))

/**
 * From the open orders up rather than from the tree down: there are few of them, however large the tree, and an index
 * holds all that is asked of them (`order_open`). Brothers share the path above them, so the next id on an order's
 * path says which branch it is on. What is recorded against an asset alone is where that stands.
 */
async function badgesOfPlaces(db: Reader, who: Asker, nodes: Found[], now: Date): Promise<Map<number, Badge>> {
  const above = pathAbove(nodes[0]!)
  if (above === '/') return badgesOfSites(db, who, now)
  const own = alias(assets, 'own_asset')
  const at = alias(places, 'at_place')
  const branch = branchOn(sql`${at.path}`, nodes)
  const inside = like(at.path, `${above}%`)
  const columns = { branch, ...counts(now) }
  const [placed, unplaced] = await Promise.all([
    db
      .select(columns)
      .from(orders)
      .innerJoin(at, eq(at.id, orders.placeId))
      .where(and(isOpen(who), inside))
      .groupBy(sql`branch`),
    db
      .select(columns)
      .from(orders)
      .innerJoin(own, eq(own.id, orders.assetId))
      .innerJoin(at, eq(at.id, own.placeId))
      .where(and(isOpen(who), isNull(orders.placeId), inside))
      .groupBy(sql`branch`),
  ])
  return summed([...placed, ...unplaced])
}

/** At the top every order of a site is in it. */
async function badgesOfSites(db: Reader, who: Asker, now: Date): Promise<Map<number, Badge>> {
  const rows = await db
    .select({ siteId: orders.siteId, ...counts(now) })
    .from(orders)
    .where(and(isOpen(who), or(isNotNull(orders.placeId), isNotNull(orders.assetId))))
    .groupBy(orders.siteId)
  const tops = await db.select({ id: places.id, siteId: places.siteId }).from(places).where(isNull(places.parentId))
  return summed(tops.flatMap((top) => rows.filter((row) => row.siteId === top.siteId).map((row) => ({ ...row, branch: String(top.id) }))))
}

async function badgesOfAssets(db: Reader, who: Asker, nodes: Found[], now: Date): Promise<Map<number, Badge>> {
  const at = alias(assets, 'at_asset')
  const rows = await db
    .select({ branch: branchOn(sql`${at.path}`, nodes), ...counts(now) })
    .from(at)
    .innerJoin(orders, eq(orders.assetId, at.id))
    .where(and(or(...nodes.map((node) => like(at.path, `${node.path}%`))), isOpen(who)))
    .groupBy(sql`branch`)
  return summed(rows)
}

const counts = (now: Date) => ({ open: sql<string>`count(*)`, late: sql<string>`coalesce(sum(${isLate(now)}), 0)` })

/** "/1/7/" of a node at "/1/7/31/". */
const pathAbove = ({ path }: Found) => path.replace(/\d+\/$/, '')

/** The id of the path that stands at the depth of these nodes, all of one depth. */
function branchOn(path: SQL, nodes: Found[]): SQL.Aliased<string> {
  const depth = nodes[0]!.path.split('/').filter(Boolean).length
  return sql<string>`substring_index(substring_index(${path}, '/', ${depth + 1}), '/', -1)`.as('branch')
}

function summed(rows: { branch: string; open: string; late: string }[]): Map<number, Badge> {
  const badges = new Map<number, Badge>()
  for (const { branch, open, late } of rows) {
    const before = badges.get(Number(branch)) ?? { open: 0, late: 0 }
    badges.set(Number(branch), { open: before.open + Number(open), late: before.late + Number(late) })
  }
  return badges
}
