import { and, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { Page } from '#contract/kit'
import type { OrderLine } from '#contract/lists'
import type { ListAsk } from '#core/lists'
import { ORDER_STATES } from '#core/orders'
import { withinSites, wordsFound } from '#server/kit'
import type { Outgoing, Reader } from '#server/kit'
import { gaugeTarget, whoIsOn } from '#server/orders'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { accounts, assets, categories, orders, orderShares, payers, people, places, sites, teams, trades, visits } from '../tables'
import { allConditions, byDay, byFlag, byMoney, byOther, byPlace, byStanding, byText, byValue } from './conditions'
import type { Condition } from './conditions'
import { keysetPage } from './keysetPage'
import type { Run } from './keysetPage'
import type { Standpoint } from './standpoint'

const visited = (who: SQL | undefined) =>
  sql`exists (select 1 from ${visits} where ${visits.orderId} = ${orders.id} and ${visits.state} <> 'recalled' and ${who ?? sql`true`})`
const paidBy = (who: SQL | undefined) => sql`exists (select 1 from ${orderShares} where ${orderShares.orderId} = ${orders.id} and ${who ?? sql`true`})`
const firstStart = sql<Date | null>`(select min(${visits.plannedStart}) from ${visits} where ${visits.orderId} = ${orders.id} and ${visits.state} <> 'recalled')`

export const ORDER_CONDITIONS: Record<string, Condition> = {
  words: (clause) => wordsFound(clause.any![0]!, { words: [orders.summary, orders.description], number: orders.number, reference: orders.outsideReference }),
  number: byText(orders.number),
  summary: byText(orders.summary),
  state: byValue(orders.state),
  standing: byStanding({
    closeAt: orders.closeAt,
    completionDueAt: orders.completionDueAt,
    at: (now) => sql`coalesce(${orders.finishedAt}, ${orders.clockStoppedAt}, ${now})`,
  }),
  priority: byValue(orders.priority),
  kind: byValue(orders.kind),
  place: byPlace(orders.placeId),
  asset: byValue(orders.assetId),
  category: byValue(orders.categoryId),
  trade: byValue(orders.tradeId),
  team: byValue(orders.teamId),
  lead: byValue(orders.leadId),
  supervisor: byValue(orders.supervisorId),
  technician: byOther((ids) => visited(ids ? inArray(visits.technicianId, ids) : isNotNull(visits.technicianId))),
  vendor: byOther((ids) => visited(ids ? inArray(visits.vendorId, ids) : isNotNull(visits.vendorId))),
  who: byFlag(() => visited(inArray(visits.state, LIVE_VISIT_STATES))),
  payer: byOther((ids) => paidBy(ids ? inArray(orderShares.payerId, ids) : undefined)),
  estimate: byMoney(orders.estimateMinor),
  due: byDay(orders.completionDueAt),
  created: byDay(orders.createdAt),
  start: (clause, from) =>
    clause.empty !== undefined ? (clause.empty ? sql`not ${visited(undefined)}` : visited(undefined)) : visited(byDay(visits.plannedStart)(clause, from)),
  finished: byDay(orders.finishedAt),
  closed: byDay(orders.closedAt),
  hold: byValue(orders.holdReason),
  consequence: byValue(orders.consequence),
  urgency: byValue(orders.urgency),
  contact: byText(orders.contactName, orders.contactPhone),
  reference: byText(orders.outsideReference),
  grouped: byFlag(() => sql`(${orders.leadOrderId} is not null or exists (select 1 from work_order member where member.lead_order_id = ${orders.id}))`),
  archived: byFlag(() => eq(orders.archived, true)),
  discarded: byFlag(() => isNotNull(orders.discardedAt)),
}

/** What a list of orders can run by. */
const KEYS = {
  id: orders.id,
  priorityRank: orders.priorityRank,
  completionDueAt: orders.completionDueAt,
  finishedAt: orders.finishedAt,
  closedAt: orders.closedAt,
  createdAt: orders.createdAt,
  estimateMinor: orders.estimateMinor,
}
interface Key {
  id: number
  priorityRank: number
  completionDueAt: Date
  finishedAt: Date | null
  closedAt: Date | null
  createdAt: Date
  estimateMinor: number | null
}
const ID = { column: orders.id, read: (row: Key) => row.id }
const DUE = { column: orders.completionDueAt, read: (row: Key) => row.completionDueAt }
const RUNS: Record<string, { keys: Run<Key>['keys']; byState: boolean }> = {
  due: { keys: [DUE, ID], byState: true },
  priority: { keys: [{ column: orders.priorityRank, read: (row) => row.priorityRank }, DUE, ID], byState: true },
  finished: { keys: [{ column: orders.finishedAt, read: (row) => row.finishedAt, nullable: true }, ID], byState: true },
  closed: { keys: [{ column: orders.closedAt, read: (row) => row.closedAt, nullable: true }, ID], byState: true },
  created: { keys: [{ column: orders.createdAt, read: (row) => row.createdAt }, ID], byState: false },
  estimate: { keys: [{ column: orders.estimateMinor, read: (row) => row.estimateMinor, nullable: true }, ID], byState: false },
  number: { keys: [ID], byState: false },
}

const leads = alias(accounts, 'lead_account')
const leadPeople = alias(people, 'lead_person')
const supervisors = alias(accounts, 'supervisor_account')
const supervisorPeople = alias(people, 'supervisor_person')

const select = (db: Reader) =>
  db
    .select({
      id: orders.id,
      number: orders.number,
      version: orders.version,
      state: orders.state,
      heldFrom: orders.heldFrom,
      kind: orders.kind,
      summary: orders.summary,
      priority: orders.priority,
      targetClock: orders.targetClock,
      targetStartAt: orders.targetStartAt,
      responseDueAt: orders.responseDueAt,
      closeAt: orders.closeAt,
      completionDueAt: orders.completionDueAt,
      clockStoppedAt: orders.clockStoppedAt,
      finishedAt: orders.finishedAt,
      closedAt: orders.closedAt,
      createdAt: orders.createdAt,
      discardedAt: orders.discardedAt,
      archived: orders.archived,
      estimateMinor: orders.estimateMinor,
      holdReason: orders.holdReason,
      contactName: orders.contactName,
      outsideReference: orders.outsideReference,
      currency: sites.currency,
      placeCode: places.code,
      placeName: places.name,
      asset: assets.tag,
      category: categories.name,
      trade: trades.name,
      team: teams.name,
      lead: leadPeople.name,
      supervisor: supervisorPeople.name,
      who: whoIsOn,
      start: firstStart.mapWith(visits.plannedStart),
      payer: sql<
        string | null
      >`(select group_concat(${payers.code} order by ${orderShares.position} separator ', ') from ${orderShares} join ${payers} on ${payers.id} = ${orderShares.payerId} where ${orderShares.orderId} = ${orders.id})`,
    })
    .from(orders)
    .leftJoin(sites, eq(sites.id, orders.siteId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(assets, eq(assets.id, orders.assetId))
    .leftJoin(categories, eq(categories.id, orders.categoryId))
    .leftJoin(trades, eq(trades.id, orders.tradeId))
    .leftJoin(teams, eq(teams.id, orders.teamId))
    .leftJoin(leads, eq(leads.id, orders.leadId))
    .leftJoin(leadPeople, eq(leadPeople.id, leads.personId))
    .leftJoin(supervisors, eq(supervisors.id, orders.supervisorId))
    .leftJoin(supervisorPeople, eq(supervisorPeople.id, supervisors.personId))
    .$dynamic()
type Found = Awaited<ReturnType<typeof select>>[number]

/** What a list of orders asks of them; what was archived or discarded is there only when it is asked for. */
export function orderConditions(ask: Pick<ListAsk, 'clauses'>, from: Standpoint): SQL | undefined {
  const asks = (field: string) => ask.clauses.some((clause) => clause.field === field)
  return and(
    allConditions(ORDER_CONDITIONS, ask.clauses, from),
    asks('archived') ? undefined : eq(orders.archived, false),
    asks('discarded') ? undefined : isNull(orders.discardedAt),
    withinSites(from, orders.siteId),
  )
}

export async function orderLines(
  db: Reader,
  ask: ListAsk,
  from: Standpoint,
  { after, limit }: { after?: string; limit: number },
): Promise<Page<Outgoing<OrderLine>>> {
  const { keys, byState } = RUNS[ask.sort.field]!
  const clause = ask.clauses.find((one) => one.field === 'state')
  const states = ORDER_STATES.filter((state) => !clause || clause.any!.includes(state) !== (clause.not ?? false))
  // State by state, each in the order of its index, rather than all of them sorted.
  const split = byState && !ask.clauses.some((one) => one.field === 'words')
  const where = orderConditions(split ? { clauses: ask.clauses.filter((one) => one !== clause) } : ask, from)
  const page = await keysetPage({
    run: { keys, down: ask.sort.down },
    parts: split ? states.map((state) => eq(orders.state, state)) : [undefined],
    after,
    limit,
    readKeys: (part, order, most) =>
      db
        .select(KEYS)
        .from(orders)
        .where(and(part, where))
        .orderBy(...order)
        .limit(most),
    readRows: (ids) => select(db).where(inArray(orders.id, ids)),
  })
  return { rows: page.rows.map(toLine), next: page.next }
}

function toLine(row: Found): Outgoing<OrderLine> {
  return {
    id: row.id,
    number: row.number,
    version: row.version,
    state: row.state,
    heldFrom: row.heldFrom,
    kind: row.kind,
    summary: row.summary,
    target: gaugeTarget(row),
    priority: row.priority,
    place: row.placeCode,
    placeName: row.placeName,
    asset: row.asset,
    category: row.category,
    trade: row.trade,
    team: row.team,
    lead: row.lead,
    supervisor: row.supervisor,
    who: row.who,
    payer: row.payer,
    estimate: row.estimateMinor,
    currency: row.currency ?? '',
    due: row.completionDueAt,
    created: row.createdAt,
    start: row.start,
    finished: row.finishedAt,
    closed: row.closedAt,
    hold: row.holdReason,
    contact: row.contactName,
    reference: row.outsideReference,
    archived: row.archived,
    discarded: row.discardedAt !== null,
  }
}
