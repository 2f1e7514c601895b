import { and, inArray, isNull, sql } from 'drizzle-orm'
import type { RecordWork } from '#contract/registers'
import { OPEN_STATES } from '#core/orders'
import { UNDECIDED_STATES } from '#core/requests'
import { standsLike, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { orders, requests } from '../tables'
import type { AnyKeeper, AnyRow } from './keeper'

/** Orders past their target: the clock of those on hold stands. */
export const isLate = (now: Date) => standsLike('past', sql`coalesce(${orders.finishedAt}, ${orders.clockStoppedAt}, ${now})`, orders)

/** How much work on a record is not over, of the sites somebody may see. Two statements at once. */
export async function workOn(db: Reader, keeper: AnyKeeper, row: AnyRow, who: Pick<Asker, 'siteIds'>, now: Date): Promise<RecordWork> {
  const [onOrders, onRequests] = [keeper.orders?.(row as never), keeper.requests?.(row as never)]
  const [[order], [request]] = await Promise.all([
    onOrders
      ? db
          .select({ open: sql<string>`count(*)`, late: sql<string>`coalesce(sum(${isLate(now)}), 0)` })
          .from(orders)
          .where(and(onOrders, inArray(orders.state, [...OPEN_STATES]), isNull(orders.discardedAt), withinSites(who, orders.siteId)))
      : [],
    onRequests
      ? db
          .select({ open: sql<string>`count(*)` })
          .from(requests)
          .where(and(onRequests, inArray(requests.state, UNDECIDED_STATES), withinSites(who, requests.siteId)))
      : [],
  ])
  return { openOrders: Number(order?.open ?? 0), lateOrders: Number(order?.late ?? 0), openRequests: Number(request?.open ?? 0) }
}
