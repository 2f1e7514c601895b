import { and, asc, desc, eq, inArray, isNotNull, isNull, max, ne, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import type { DoneWork, OpenWork, WhoKnows } from '#contract/portraits'
import { FINISHED_STATES, OPEN_STATES } from '#core/orders'
import { UNDECIDED_STATES } from '#core/requests'
import { query, withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { costByOrder } from '#server/ledger'
import { gaugeTarget } from '#server/orders'
import { seenRecord } from '#server/registers'
import { requestTarget } from '#server/requests'
import { accounts, orders, people, requests, technicians, vendors, visits } from '../tables'
import { KEEPERS } from './keepers'

const MOST_OPEN = 30
const MOST_DONE = 20
const MOST_WHO = 5
/** Who was there longer ago has forgotten. */
const KNOWS_DAYS = 365

export default query(contract.readPortraitWork, async ({ db, who, input, now }) => {
  const keeper = KEEPERS[input.register]
  const row = await seenRecord(db, keeper, who, input.id)
  const onOrders = keeper.orders?.(row as never)
  const onRequests = keeper.requests?.(row as never)
  const [openOrders, openRequests, done, finished, knows] = await Promise.all([
    onOrders ? readOpenOrders(db, who, onOrders) : [],
    onRequests ? readOpenRequests(db, who, onRequests) : [],
    onOrders ? readDone(db, who, onOrders) : [],
    onOrders ? countFinished(db, who, onOrders) : 0,
    onOrders ? whoKnows(db, who, onOrders, now) : [],
  ])
  const open = [...openOrders, ...openRequests].sort((a, b) => dueOf(a).getTime() - dueOf(b).getTime())
  return { open, done, finished, knows }
})

const dueOf = ({ target }: Outgoing<OpenWork>) => new Date(target.completionDueAt)

async function readOpenOrders(db: Reader, who: Asker, on: SQL): Promise<Outgoing<OpenWork>[]> {
  const rows = await db
    .select()
    .from(orders)
    .where(and(on, inArray(orders.state, [...OPEN_STATES]), isNull(orders.discardedAt), withinSites(who, orders.siteId)))
    .orderBy(asc(orders.completionDueAt))
    .limit(MOST_OPEN)
  return rows.map((order) => ({
    type: 'order' as const,
    id: order.id,
    number: order.number,
    summary: order.summary,
    state: order.state,
    target: gaugeTarget(order),
  }))
}

async function readOpenRequests(db: Reader, who: Asker, on: SQL): Promise<Outgoing<OpenWork>[]> {
  const rows = await db
    .select()
    .from(requests)
    .where(and(on, inArray(requests.state, UNDECIDED_STATES), withinSites(who, requests.siteId)))
    .orderBy(asc(requests.triageDueAt))
    .limit(MOST_OPEN)
  return rows.map((request) => ({
    type: 'request' as const,
    id: request.id,
    number: request.number,
    summary: request.summary,
    state: request.state,
    target: requestTarget(request),
  }))
}

const isDone = (who: Asker, on: SQL) => and(on, inArray(orders.state, FINISHED_STATES), isNotNull(orders.finishedAt), withinSites(who, orders.siteId))

async function readDone(db: Reader, who: Asker, on: SQL): Promise<Outgoing<DoneWork>[]> {
  const rows = await db
    .select({
      id: orders.id,
      number: orders.number,
      summary: orders.summary,
      kind: orders.kind,
      state: orders.state,
      finishedAt: orders.finishedAt,
      symptom: orders.symptom,
      cause: orders.cause,
      fix: orders.fix,
    })
    .from(orders)
    .where(isDone(who, on))
    .orderBy(desc(orders.createdAt), desc(orders.id))
    .limit(MOST_DONE)
  const costs = await costByOrder(
    db,
    rows.map((row) => row.id),
  )
  return rows.map((row) => ({ ...row, finishedAt: row.finishedAt!, costMinor: costs.get(row.id) ?? 0 }))
}

async function countFinished(db: Reader, who: Asker, on: SQL): Promise<number> {
  const [row] = await db
    .select({ n: sql<string>`count(*)` })
    .from(orders)
    .where(isDone(who, on))
  return Number(row!.n)
}

async function whoKnows(db: Reader, who: Asker, on: SQL, now: Date): Promise<Outgoing<WhoKnows>[]> {
  const name = sql<string>`coalesce(${people.name}, ${vendors.name}, '')`
  const rows = await db
    .select({ who: name.as('who'), visits: sql<string>`count(*)`.as('n'), lastAt: max(visits.endedAt) })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .leftJoin(technicians, eq(technicians.id, visits.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(
      and(on, withinSites(who, orders.siteId), ne(visits.state, 'recalled'), sql`${visits.endedAt} >= ${new Date(now.getTime() - KNOWS_DAYS * 86_400_000)}`),
    )
    .groupBy(sql`who`)
    .orderBy(sql`n desc`, sql`who`)
    .limit(MOST_WHO)
  return rows.map((row) => ({ who: row.who, visits: Number(row.visits), lastAt: row.lastAt! }))
}
