import { and, asc, desc, eq, gt, inArray, like, lt, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import * as contract from '#contract/orders'
import type { OrderSort } from '#contract/orders'
import { STATION_STATES } from '#core/orders'
import { decodeCursor, encodeCursor, query, withinSites } from '#server/kit'
import { accounts, orders, people, places, technicians, vendors, visits } from '../tables'
import { isLiveVisit, kept } from './facts'
import { gaugeTarget } from './targetOf'

/** How each order of the list runs: its columns, and what "after the last row" means. */
const SORTS: Record<
  OrderSort,
  { order: SQL[]; cursor: (row: typeof orders.$inferSelect) => (string | number)[]; beyond: (last: (string | number)[]) => SQL | undefined }
> = {
  due: {
    order: [asc(orders.completionDueAt), asc(orders.id)],
    cursor: (row) => [row.completionDueAt.toISOString(), row.id],
    beyond: ([due, id]) => sql`(${orders.completionDueAt}, ${orders.id}) > (${instantText(due)}, ${id})`,
  },
  priority: {
    order: [asc(orders.priorityRank), asc(orders.completionDueAt), asc(orders.id)],
    cursor: (row) => [row.priorityRank, row.completionDueAt.toISOString(), row.id],
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
    beyond: ([id]) => lt(orders.id, Number(id)),
  },
}

export default query(contract.listOrders, async ({ db, who, input }) => {
  const sort = SORTS[input.sort ?? 'due']
  const limit = input.limit ?? 50
  const size = { due: 2, priority: 3, newest: 1 }[input.sort ?? 'due']
  const states = input.state ? [input.state] : input.station ? STATION_STATES[input.station] : null
  const rows = await db
    .select({ order: orders, placeCode: places.code, placeName: places.name })
    .from(orders)
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(
      and(
        states ? inArray(orders.state, states) : undefined,
        input.priority ? eq(orders.priority, input.priority) : undefined,
        input.placeId ? eq(orders.placeId, input.placeId) : undefined,
        input.assetId ? eq(orders.assetId, input.assetId) : undefined,
        input.q
          ? or(like(orders.number, `%${input.q}%`), like(orders.summary, `%${input.q}%`), like(places.searchText, `%${input.q.toLowerCase()}%`))
          : undefined,
        kept,
        withinSites(who, orders.siteId),
        input.after ? sort.beyond(decodeCursor(input.after, size)) : undefined,
      ),
    )
    .orderBy(...sort.order)
    .limit(limit + 1)
  const page = rows.slice(0, limit)
  const names = await whoIsOn(
    db,
    page.map(({ order }) => order.id),
  )
  const last = page.at(-1)
  return {
    rows: page.map(({ order, placeCode, placeName }) => ({
      id: order.id,
      number: order.number,
      state: order.state,
      heldFrom: order.heldFrom,
      kind: order.kind,
      summary: order.summary,
      placeCode,
      placeName,
      priority: order.priority,
      target: gaugeTarget(order),
      who: names.get(order.id)?.join(', ') ?? null,
      onJob: order.state === 'on_job',
    })),
    next: rows.length > limit && last ? encodeCursor(sort.cursor(last.order)) : null,
  }
})

/** The names of those planned or present on each of these orders, in one statement. */
async function whoIsOn(db: Parameters<Parameters<typeof query>[1]>[0]['db'], orderIds: number[]): Promise<Map<number, string[]>> {
  const names = new Map<number, string[]>()
  if (!orderIds.length) return names
  const rows = await db
    .select({ orderId: visits.orderId, person: people.name, vendor: vendors.name })
    .from(visits)
    .leftJoin(technicians, eq(technicians.id, visits.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(and(inArray(visits.orderId, orderIds), isLiveVisit))
  for (const { orderId, person, vendor } of rows) names.set(orderId, [...(names.get(orderId) ?? []), person ?? vendor ?? ''])
  return names
}

const instantText = (iso: string | number | undefined) => String(iso).replace('T', ' ').replace('Z', '')
