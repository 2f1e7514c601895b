import { and, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/orders'
import type { OrderSort } from '#contract/orders'
import { STATION_STATES } from '#core/orders'
import { keysetPage, query, withinSites, wordsIn } from '#server/kit'
import type { Run } from '#server/kit'
import { orders, places } from '../tables'
import { kept } from './facts'
import { orderLinesOf } from './orderLine'

const KEYS = { id: orders.id, priorityRank: orders.priorityRank, completionDueAt: orders.completionDueAt }
interface Key {
  id: number
  priorityRank: number
  completionDueAt: Date
}
const ID = { column: orders.id, read: (row: Key) => row.id }
const DUE = { column: orders.completionDueAt, read: (row: Key) => row.completionDueAt }
/** How a queue runs. */
const RUNS: Record<OrderSort, Run<Key>> = {
  due: { keys: [DUE, ID], down: false },
  priority: { keys: [{ column: orders.priorityRank, read: (row) => row.priorityRank }, DUE, ID], down: false },
  newest: { keys: [ID], down: true },
}

export default query(contract.listOrders, async ({ db: plain, who, input, service }) => {
  const db = input.q ? service.searcher : plain
  const sort = input.sort ?? 'due'
  const states = input.state ? [input.state] : input.station ? STATION_STATES[input.station] : null
  const found = { words: [orders.summary, orders.description, places.searchText], number: orders.number, reference: orders.outsideReference }
  const where = and(
    input.priority ? eq(orders.priority, input.priority) : undefined,
    input.placeId ? eq(orders.placeId, input.placeId) : undefined,
    input.assetId ? eq(orders.assetId, input.assetId) : undefined,
    input.q ? wordsIn(input.q, found) : undefined,
    kept,
    withinSites(who, orders.siteId),
  )
  return keysetPage({
    run: RUNS[sort],
    // State by state, each read in the order of its index, rather than all of them sorted.
    parts: states && sort !== 'newest' ? states.map((state) => eq(orders.state, state)) : [states ? inArray(orders.state, states) : undefined],
    after: input.after,
    limit: input.limit ?? 50,
    readKeys: (part, order, most) =>
      db
        .select(KEYS)
        .from(orders)
        .leftJoin(places, eq(places.id, orders.placeId))
        .where(and(part, where))
        .orderBy(...order)
        .limit(most),
    readRows: (ids) => orderLinesOf(db, ids),
  })
})
