import { and, desc, eq, gt, inArray, isNull, like, notInArray, or, sql } from 'drizzle-orm'
import { foldText } from '#core/kit'
import { fitOf, NO_USE } from '#core/methods'
import type { MethodUse, OrderAsk, Share } from '#core/methods'
import { FINISHED_STATES } from '#core/orders'
import { likeText, openDatabase } from '#server/kit'
import type { Db } from '#server/kit'
import { costByOrder } from '#server/ledger'
import { methods, orderMethods, orders, stints } from '../tables'
import { likeOrders } from './likeOrders'
import type { Like } from './likeOrders'

export interface OffersJob {
  databaseUrl: string
  ask: OrderAsk & Like
  /** What somebody looks for by name; without it, what fits is offered. */
  words: string
}
/** What like orders cost, asked of the same thread. */
export interface CostsJob {
  databaseUrl: string
  like: Like
}
export interface Offer {
  id: number
  reasons: string[]
}

const MOST_OFFERED = 6
const MOST_DURATIONS = 60

let base: { url: string; db: Db } | null = null
/** One line to the database for as long as the thread lives. */
function dbOf(url: string): Db {
  if (base?.url !== url) base = { url, db: openDatabase(url, { connections: 3 }).db }
  return base.db
}

/** What an order is held against in earlier work: methods that fit, or what like orders cost. */
export default function ask(job: OffersJob | CostsJob): Promise<Offer[] | number[]> {
  const db = dbOf(job.databaseUrl)
  return 'like' in job ? costsOf(db, job.like) : offer(db, job)
}

/** What the last finished orders like it cost: of this asset and its class. */
async function costsOf(db: Db, like: Like): Promise<number[]> {
  const { onAsset, inClass } = await likeOrders(db, like)
  const ids = [...new Set([...onAsset, ...inClass])].filter((id) => id !== like.orderId)
  return [...(await costByOrder(db, ids)).values()].filter((cost) => cost > 0)
}

/** Methods that fit an order, the best first, each with its reasons. */
async function offer(db: Db, { ask, words }: OffersJob): Promise<Offer[]> {
  const asked = foldText(words).split(' ').filter(Boolean)
  const uses = await usesLike(db, ask)
  const fits = (await candidatesFor(db, ask, asked, [...uses.keys()]))
    .map((method) => ({ method, fit: fitOf(method, ask, uses.get(method.id)) }))
    .filter(({ fit }) => asked.length > 0 || fit.score > 0)
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

/** Methods in use that say something and that the order does not have: those with all the words, else those that may fit (`fitOf` decides). */
function candidatesFor(db: Db, { orderId, kind, classCode }: OffersJob['ask'], words: string[], used: number[]) {
  const given = db.select({ id: orderMethods.methodId }).from(orderMethods).where(eq(orderMethods.orderId, orderId))
  const mayFit = or(
    and(or(isNull(methods.kind), eq(methods.kind, kind)), classCode === null ? undefined : or(isNull(methods.classCode), eq(methods.classCode, classCode))),
    used.length ? inArray(methods.id, used) : undefined,
  )
  return db
    .select({ id: methods.id, name: methods.name, kind: methods.kind, classCode: methods.classCode, categoryId: methods.categoryId, tradeId: methods.tradeId })
    .from(methods)
    .where(
      and(
        isNull(methods.retiredAt),
        gt(methods.edition, 0),
        notInArray(methods.id, given),
        words.length ? and(...words.map((word) => like(methods.searchText, `%${likeText(word)}%`))) : mayFit,
      ),
    )
}

/** How often each method was used on the last work that is like this. */
async function usesLike(db: Db, ask: OffersJob['ask']): Promise<Map<number, MethodUse>> {
  const { onAsset, inClass, atPlace } = await likeOrders(db, ask)
  const ids = [...new Set([...onAsset, ...inClass, ...atPlace])]
  const given = ids.length
    ? await db.select({ orderId: orderMethods.orderId, methodId: orderMethods.methodId }).from(orderMethods).where(inArray(orderMethods.orderId, ids))
    : []
  const shareIn = (all: number[], methodId: number): Share => ({
    of: all.length,
    used: all.filter((id) => given.some((one) => one.methodId === methodId && one.orderId === id)).length,
  })
  return new Map(
    [...new Set(given.map(({ methodId }) => methodId))].map((id) => [
      id,
      { onAsset: shareIn(onAsset, id), inClass: shareIn(inClass, id), atPlace: shareIn(atPlace, id), minutes: [] },
    ]),
  )
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
