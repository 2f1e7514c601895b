import { desc, eq, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/lists'
import { refuse } from '#core/kit'
import { askedField, isRegister } from '#core/lists'
import type { ListAsk } from '#core/lists'
import type { RegisterName } from '#core/registers'
import { query, standsLike } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { RECORD_TABLES } from '#server/registers'
import { orders, places, requests } from '../tables'
import { orderConditions } from './orderLines'
import { NAMES } from './names'
import { ownColumn, ownLead, ownOf } from './own'
import { columnOf, recordConditions } from './recordLines'
import { requestConditions } from './requestLines'
import { askedOf, readerOf } from './asked'
import type { Standpoint } from './standpoint'

const MOST = 200
/** The building, or what stands for it: the second place of a path like "/1/7/31/". A site is its own. */
const building = sql<number>`cast(coalesce(nullif(substring_index(substring_index(${places.path}, '/', 3), '/', -1), ''), ${places.id}) as unsigned)`

const ORDER_GROUPS: Record<string, MySqlColumn | SQL> = {
  state: orders.state,
  priority: orders.priority,
  kind: orders.kind,
  place: building,
  asset: orders.assetId,
  category: orders.categoryId,
  trade: orders.tradeId,
  team: orders.teamId,
  lead: orders.leadId,
  supervisor: orders.supervisorId,
  hold: orders.holdReason,
  ownstate: orders.ownStateId,
}
const REQUEST_GROUPS: Record<string, MySqlColumn | SQL> = {
  state: requests.state,
  channel: requests.channel,
  priority: requests.priority,
  place: building,
  asset: requests.assetId,
  category: requests.categoryId,
  payer: requests.payerId,
  takenup: requests.takenUpBy,
}

export default query(contract.listGroups, async ({ db: plain, who, input, now, service }) => {
  const { ask, from } = await askedOf({ db: plain, who, now }, input.kind, input.ask)
  const db = readerOf(service, ask)
  if (!ask.group) refuse('no_group', 'Say what the rows are brought together by.', 'group')
  const rows = await groupsOf(db, ask, from)
  const labels = await labelsOf(db, who, ask, rows)
  return {
    rows: rows.map(({ value, count, past, estimate }) => ({
      value: value === null ? 'none' : String(value),
      label: value === null ? 'None' : (labels(String(value)) ?? String(value)),
      count: Number(count),
      past: past === null ? null : Number(past),
      estimateMinor: estimate === null ? null : Number(estimate),
    })),
  }
})

interface Group {
  value: string | number | null
  count: string
  past: string | null
  estimate: string | null
}

function groupsOf(db: Reader, ask: ListAsk, from: Standpoint): Promise<Group[]> {
  if (isRegister(ask.kind)) return recordGroups(db, ask.kind, ask, from)
  return ask.kind === 'orders' ? orderGroups(db, ask, from) : requestGroups(db, ask, from)
}

function recordGroups(db: Reader, register: RegisterName, ask: ListAsk, from: Standpoint): Promise<Group[]> {
  const field = askedField(ask, ask.group!)
  const column = field.own ? ownColumn(field, ownLead) : columnOf(register, field)!
  const table = RECORD_TABLES[register]
  // Of a place its building, as everywhere; a place itself is brought together by what it stands in.
  const byBuilding = field.register === 'place' && register !== 'places'
  const value = sql<string | number | null>`${byBuilding ? building : column}`
  const rows = db
    .select({ value, count: sql<string>`count(*)`.as('n'), past: sql<null>`null`, estimate: sql<null>`null` })
    .from(table)
    .$dynamic()
  const joined = byBuilding ? rows.leftJoin(places, eq(places.id, column)) : rows
  return (field.own ? joined.leftJoin(ownLead, ownOf(field, table.id)) : joined)
    .where(recordConditions(register, ask, from))
    .groupBy(value)
    .orderBy(desc(sql`n`))
    .limit(MOST)
}

function orderGroups(db: Reader, ask: ListAsk, from: Standpoint): Promise<Group[]> {
  const field = askedField(ask, ask.group!)
  const value = sql<string | number | null>`${field.own ? ownColumn(field, ownLead) : ORDER_GROUPS[ask.group!]!}`
  return db
    .select({
      value,
      count: sql<string>`count(*)`.as('n'),
      past: sql<string>`sum(${standsLike('past', sql`coalesce(${orders.finishedAt}, ${orders.clockStoppedAt}, ${from.now})`, orders)})`,
      estimate: sql<string | null>`sum(${orders.estimateMinor})`,
    })
    .from(orders)
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(ownLead, ownOf(field, orders.id))
    .where(orderConditions(ask, from))
    .groupBy(value)
    .orderBy(desc(sql`n`))
    .limit(MOST)
}

function requestGroups(db: Reader, ask: ListAsk, from: Standpoint): Promise<Group[]> {
  const field = askedField(ask, ask.group!)
  const value = sql<string | number | null>`${field.own ? ownColumn(field, ownLead) : REQUEST_GROUPS[ask.group!]!}`
  return db
    .select({
      value,
      count: sql<string>`count(*)`.as('n'),
      past: sql<string>`sum(coalesce(${requests.decidedAt}, ${from.now}) > ${requests.triageDueAt})`,
      estimate: sql<string | null>`null`,
    })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .leftJoin(ownLead, ownOf(field, requests.id))
    .where(requestConditions(ask, from))
    .groupBy(value)
    .orderBy(desc(sql`n`))
    .limit(MOST)
}

async function labelsOf(db: Reader, who: Asker, ask: ListAsk, rows: Group[]): Promise<(value: string) => string | undefined> {
  const field = askedField(ask, ask.group!)
  if (field.shape === 'choice') return (value) => field.choices![value]
  const ids = rows.flatMap((row) => (row.value === null ? [] : Number(row.value)))
  const names = new Map((ids.length ? await NAMES[field.register!](db, ids, who) : []).map((row) => [String(row.id), row.name]))
  return (value) => names.get(value)
}
