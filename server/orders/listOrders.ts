import { and, asc, desc, eq, gt, inArray, lt, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import * as contract from '#contract/orders'
import type { OrderSort } from '#contract/orders'
import { STATION_STATES } from '#core/orders'
import { decodeCursor, encodeCursor, query, withinSites, wordsIn } from '#server/kit'
import type { CursorPart } from '#server/kit'
import { orders, places } from '../tables'
import { kept } from './facts'
import { gaugeTarget } from './targetOf'
import { whoIsOn } from './whoIsOn'

/** How each order of the list runs: its columns, and what "after the last row" means. */
const SORTS: Record<
  OrderSort,
  {
    order: SQL[]
    cursor: (row: { id: number; priorityRank: number; completionDueAt: Date }) => (string | number)[]
    beyond: (last: (string | number)[]) => SQL | undefined
    parts: CursorPart[]
  }
> = {
  due: {
    order: [asc(orders.completionDueAt), asc(orders.id)],
    cursor: (row) => [row.completionDueAt.toISOString(), row.id],
    parts: ['instant', 'integer'],
    beyond: ([due, id]) => sql`(${orders.completionDueAt}, ${orders.id}) > (${instantText(due)}, ${id})`,
  },
  priority: {
    order: [asc(orders.priorityRank), asc(orders.completionDueAt), asc(orders.id)],
    cursor: (row) => [row.priorityRank, row.completionDueAt.toISOString(), row.id],
    parts: ['integer', 'instant', 'integer'],
    beyond: ([rank, due, id]) =>
      or(
        gt(orders.priorityRank, Number(rank)),
        and(
          eq(orders.priorityRank, Number(rank)),
          or(gt(orders.completionDueAt, new Date(due!)), and(eq(orders.completionDueAt, new Date(due!)), gt(orders.id, Number(id)))),
        ),
      ),
  },
  newest: {
    order: [desc(orders.id)],
    cursor: (row) => [row.id],
    parts: ['integer'],
    beyond: ([id]) => lt(orders.id, Number(id)),
  },
}

/** What a row of the list shows, and what its cursor is made of. */
const COLUMNS = {
  id: orders.id,
  number: orders.number,
  state: orders.state,
  heldFrom: orders.heldFrom,
  kind: orders.kind,
  summary: orders.summary,
  priority: orders.priority,
  priorityRank: orders.priorityRank,
  targetClock: orders.targetClock,
  targetStartAt: orders.targetStartAt,
  responseDueAt: orders.responseDueAt,
  closeAt: orders.closeAt,
  completionDueAt: orders.completionDueAt,
  clockStoppedAt: orders.clockStoppedAt,
  finishedAt: orders.finishedAt,
  placeCode: places.code,
  placeName: places.name,
  who: whoIsOn,
}

export default query(contract.listOrders, async ({ db: plain, who, input, service }) => {
  const db = input.q ? service.searcher : plain
  const sort = SORTS[input.sort ?? 'due']
  const limit = input.limit ?? 50
  const states = input.state ? [input.state] : input.station ? STATION_STATES[input.station] : null
  const others = and(
    input.priority ? eq(orders.priority, input.priority) : undefined,
    input.placeId ? eq(orders.placeId, input.placeId) : undefined,
    input.assetId ? eq(orders.assetId, input.assetId) : undefined,
    input.q
      ? wordsIn(input.q, { words: [orders.summary, orders.description, places.searchText], number: orders.number, reference: orders.outsideReference })
      : undefined,
    kept,
    withinSites(who, orders.siteId),
    input.after ? sort.beyond(decodeCursor(input.after, sort.parts)) : undefined,
  )
  const page = (where: SQL | undefined) =>
    db
      .select(COLUMNS)
      .from(orders)
      .leftJoin(places, eq(places.id, orders.placeId))
      .where(and(where, others))
      .orderBy(...sort.order)
      .limit(limit + 1)
  // State by state, each read in the order of its index, rather than all of them sorted.
  const found = await Promise.all(
    states && input.sort !== 'newest' ? states.map((state) => page(eq(orders.state, state))) : [page(states ? inArray(orders.state, states) : undefined)],
  )
  const rows = found.length > 1 ? found.flat().sort((a, b) => compare(sort.cursor(a), sort.cursor(b))) : found[0]!
  const shown = rows.slice(0, limit)
  const last = shown.at(-1)
  return {
    rows: shown.map((row) => ({
      id: row.id,
      number: row.number,
      state: row.state,
      heldFrom: row.heldFrom,
      kind: row.kind,
      summary: row.summary,
      placeCode: row.placeCode,
      placeName: row.placeName,
      priority: row.priority,
      target: gaugeTarget(row),
      who: row.who,
      onJob: row.state === 'on_job',
    })),
    next: rows.length > limit && last ? encodeCursor(sort.cursor(last)) : null,
  }
})

/** Cursors in the order of their list: instants as ISO text compare as time does. */
function compare(a: (string | number)[], b: (string | number)[]): number {
  for (let n = 0; n < a.length; n++) if (a[n] !== b[n]) return a[n]! < b[n]! ? -1 : 1
  return 0
}

const instantText = (iso: string | number | undefined) => String(iso).replace('T', ' ').replace('Z', '')
