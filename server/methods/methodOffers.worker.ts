import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { foldText } from '#core/kit'
import { fitOf, NO_USE } from '#core/methods'
import type { MethodUse, OrderAsk, Share } from '#core/methods'
import { FINISHED_STATES } from '#core/orders'
import { isOutOfTime, openDatabase } from '#server/kit'
import type { Db } from '#server/kit'
import { assets, methods, orderMethods, orders, stints } from '../tables'

export interface OffersJob {
  databaseUrl: string
  ask: OrderAsk & { orderId: number; siteId: number; assetId: number | null; placeId: number | null }
  /** What somebody looks for by name; without it, what fits is offered. */
  words: string
}
export interface Offer {
  id: number
  reasons: string[]
}

const LAST = 14
const MOST_OFFERED = 6
const MOST_DURATIONS = 60
/** Assets of a rare class are asked one by one; of a common one, the newest orders are looked through. */
const FEW_ASSETS = 400

let base: { url: string; db: Db } | null = null
/** One line to the database for as long as the thread lives. */
function dbOf(url: string): Db {
  if (base?.url !== url) base = { url, db: openDatabase(url, { connections: 3 }).db }
  return base.db
}

/** Methods that fit an order, the best first, each with its reasons. */
export default async function offer({ databaseUrl, ask, words }: OffersJob): Promise<Offer[]> {
  const db = dbOf(databaseUrl)
  const given = db.select({ id: orderMethods.methodId }).from(orderMethods).where(eq(orderMethods.orderId, ask.orderId))
  const candidates = await db
    .select({
      id: methods.id,
      name: methods.name,
      kind: methods.kind,
      classCode: methods.classCode,
      categoryId: methods.categoryId,
      tradeId: methods.tradeId,
      searchText: methods.searchText,
    })
    .from(methods)
    .where(and(isNull(methods.retiredAt), sql`${methods.edition} > 0`, sql`${methods.id} not in ${given}`))
  const uses = await usesLike(db, ask)
  const asked = foldText(words).split(' ').filter(Boolean)
  const fits = candidates
    .map((method) => ({ method, fit: fitOf(method, ask, uses.get(method.id)) }))
    .filter(({ method, fit }) => (asked.length ? asked.every((word) => method.searchText.includes(word)) : fit.score > 0))
    .sort((one, other) => other.fit.score - one.fit.score || one.method.id - other.method.id)
    .slice(0, asked.length ? MOST_OFFERED * 2 : MOST_OFFERED)
  const minutes = await minutesOf(
    db,
    fits.map(({ method }) => method.id),
  )
  return fits.map(({ method }) => ({
    id: method.id,
    reasons: fitOf(method, ask, { ...(uses.get(method.id) ?? NO_USE), minutes: minutes.get(method.id) ?? [] }).reasons,
  }))
}

/** How often each method was used on the last work that is like this. */
async function usesLike(db: Db, { siteId, kind, assetId, placeId, classCode }: OffersJob['ask']): Promise<Map<number, MethodUse>> {
  const finished = and(eq(orders.kind, kind), inArray(orders.state, FINISHED_STATES), isNull(orders.discardedAt))
  const last = (where: SQL | undefined) => db.select({ id: orders.id }).from(orders).where(and(where, finished)).orderBy(desc(orders.createdAt)).limit(LAST)
  const [onAsset, inClass, atPlace] = await Promise.all([
    assetId ? last(eq(orders.assetId, assetId)) : [],
    classCode ? lastOfClass(db, siteId, classCode, finished) : [],
    placeId ? last(eq(orders.placeId, placeId)) : [],
  ])
  const ids = [...new Set([...onAsset, ...inClass, ...atPlace].map(({ id }) => id))]
  const given = ids.length
    ? await db.select({ orderId: orderMethods.orderId, methodId: orderMethods.methodId }).from(orderMethods).where(inArray(orderMethods.orderId, ids))
    : []
  const shareIn = (rows: { id: number }[], methodId: number): Share => ({
    of: rows.length,
    used: rows.filter(({ id }) => given.some((one) => one.methodId === methodId && one.orderId === id)).length,
  })
  return new Map(
    [...new Set(given.map(({ methodId }) => methodId))].map((id) => [
      id,
      { onAsset: shareIn(onAsset, id), inClass: shareIn(inClass, id), atPlace: shareIn(atPlace, id), minutes: [] },
    ]),
  )
}

async function lastOfClass(db: Db, siteId: number, classCode: string, finished: SQL | undefined): Promise<{ id: number }[]> {
  const some = await db
    .select({ id: assets.id })
    .from(assets)
    .where(and(eq(assets.siteId, siteId), eq(assets.classCode, classCode)))
    .limit(FEW_ASSETS + 1)
  if (some.length <= FEW_ASSETS) {
    const ids = some.map(({ id }) => id)
    if (!ids.length) return []
    return db
      .select({ id: orders.id })
      .from(orders)
      .where(and(inArray(orders.assetId, ids), finished))
      .orderBy(desc(orders.createdAt))
      .limit(LAST)
  }
  try {
    const [rows] = (await db.execute(sql`set statement max_statement_time = 0.2 for select straight_join ${orders.id} as id
      from ${orders} force index (order_created) join ${assets} on ${assets.id} = ${orders.assetId}
      where ${assets.classCode} = ${classCode} and ${orders.siteId} = ${siteId} and ${finished} order by ${orders.createdAt} desc limit ${LAST}`)) as unknown as [
      { id: number }[],
    ]
    return rows
  } catch (error) {
    if (!isOutOfTime(error)) throw error
    return []
  }
}

/** Minutes of work of the last orders that were done by each method. */
async function minutesOf(db: Db, methodIds: number[]): Promise<Map<number, number[]>> {
  const found = new Map<number, number[]>()
  await Promise.all(
    methodIds.map(async (id) => {
      const rows = await db
        .select({ minutes: sql<string>`sum(${stints.minutes})` })
        .from(orderMethods)
        .innerJoin(orders, and(eq(orders.id, orderMethods.orderId), inArray(orders.state, FINISHED_STATES)))
        .innerJoin(stints, and(eq(stints.orderId, orders.id), eq(stints.kind, 'work')))
        .where(eq(orderMethods.methodId, id))
        .groupBy(orderMethods.id)
        .orderBy(desc(orderMethods.id))
        .limit(MOST_DURATIONS)
      found.set(
        id,
        rows.map(({ minutes }) => Number(minutes)).filter((minutes) => minutes > 0),
      )
    }),
  )
  return found
}
