import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { FINISHED_STATES } from '#core/orders'
import type { OrderKind } from '#core/orders'
import { isOutOfTime } from '#server/kit'
import type { Db } from '#server/kit'
import { assets, orders } from '../tables'

/** What makes earlier work like an order. */
export interface Like {
  orderId: number
  siteId: number
  kind: OrderKind
  assetId: number | null
  placeId: number | null
  classCode: string | null
}

const LAST = 14
/** Assets of a rare class are asked one by one; of a common one, the newest orders are looked through. */
const FEW_ASSETS = 400
/** A common class whose work is rare among the newest orders is given up on. */
const MOST_SECONDS = 0.2

/** The last finished orders of the same kind: on this asset, on assets of its class, at this place. Reads much; for threads of their own. */
export async function likeOrders(db: Db, like: Like): Promise<Record<'onAsset' | 'inClass' | 'atPlace', number[]>> {
  const { kind, assetId, placeId, classCode, siteId } = like
  const finished = and(eq(orders.kind, kind), inArray(orders.state, FINISHED_STATES), isNull(orders.discardedAt))
  const [onAsset, inClass, atPlace] = await Promise.all([
    assetId ? last(db, and(eq(orders.assetId, assetId), finished)) : [],
    classCode ? lastOfClass(db, siteId, classCode, finished) : [],
    placeId ? last(db, and(eq(orders.placeId, placeId), finished)) : [],
  ])
  return { onAsset, inClass, atPlace }
}

async function last(db: Db, where: SQL | undefined): Promise<number[]> {
  const rows = await db.select({ id: orders.id }).from(orders).where(where).orderBy(desc(orders.createdAt)).limit(LAST)
  return rows.map(({ id }) => id)
}

async function lastOfClass(db: Db, siteId: number, classCode: string, finished: SQL | undefined): Promise<number[]> {
  const some = await db
    .select({ id: assets.id })
    .from(assets)
    .where(and(eq(assets.siteId, siteId), eq(assets.classCode, classCode)))
    .limit(FEW_ASSETS + 1)
  if (!some.length) return []
  const ids = some.map(({ id }) => id)
  if (some.length <= FEW_ASSETS) return last(db, and(inArray(orders.assetId, ids), finished))
  try {
    const [rows] = (await db.execute(sql`set statement max_statement_time = ${sql.raw(String(MOST_SECONDS))} for select straight_join ${orders.id} as id
      from ${orders} force index (order_created) join ${assets} on ${assets.id} = ${orders.assetId}
      where ${assets.classCode} = ${classCode} and ${orders.siteId} = ${siteId} and ${finished} order by ${orders.createdAt} desc limit ${LAST}`)) as unknown as [
      { id: number }[],
    ]
    return rows.map(({ id }) => id)
  } catch (error) {
    if (!isOutOfTime(error)) throw error
    return []
  }
}
