import { and, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { Page } from '#contract/kit'
import type { OrderLine } from '#contract/orders'
import { askedField } from '#core/lists'
import type { ListAsk, ListField } from '#core/lists'
import { ORDER_STATES } from '#core/orders'
import { keysetPage, withinSites, wordsFound } from '#server/kit'
import type { Outgoing, Reader, Run } from '#server/kit'
import { orderLinesOf } from '#server/orders'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { orders, orderShares, visits } from '../tables'
import { allConditions, byDay, byFlag, byAmount, byOther, byPlace, byStanding, byText, byValue } from './conditions'
import type { Condition } from './conditions'
import { isNamed, ownColumn, ownCondition, ownKeys, ownLead, withOwn } from './own'
import type { WithOwn } from '#contract/lists'
import type { Standpoint } from './standpoint'

const visited = (who: SQL | undefined) =>
  sql`exists (select 1 from ${visits} where ${visits.orderId} = ${orders.id} and ${visits.state} <> 'recalled' and ${who ?? sql`true`})`
const paidBy = (who: SQL | undefined) => sql`exists (select 1 from ${orderShares} where ${orderShares.orderId} = ${orders.id} and ${who ?? sql`true`})`

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
  ownstate: byValue(orders.ownStateId),
  team: byValue(orders.teamId),
  lead: byValue(orders.leadId),
  supervisor: byValue(orders.supervisorId),
  technician: byOther((ids) => visited(ids ? inArray(visits.technicianId, ids) : isNotNull(visits.technicianId))),
  vendor: byOther((ids) => visited(ids ? inArray(visits.vendorId, ids) : isNotNull(visits.vendorId))),
  who: byFlag(() => visited(inArray(visits.state, LIVE_VISIT_STATES))),
  payer: byOther((ids) => paidBy(ids ? inArray(orderShares.payerId, ids) : undefined)),
  estimate: byAmount(orders.estimateMinor),
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
  own?: string | number | null
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

/** By an own field: its index leads to the rows, those without it last. */
const ownRun = (lead: ListField) => ({ keys: [{ column: ownColumn(lead, ownLead), read: (row: Key) => row.own ?? null, nullable: true }, ID], byState: false })

/** What a list of orders asks of them; what was archived or discarded is there only when it is asked for. */
export function orderConditions(ask: Pick<ListAsk, 'clauses' | 'fields'>, from: Standpoint): SQL | undefined {
  const asks = (field: string) => ask.clauses.some((clause) => clause.field === field)
  return and(
    allConditions(ORDER_CONDITIONS, ask.clauses, from, (clause) => ownCondition(askedField(ask, clause.field), orders.id, clause, from)),
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
): Promise<Page<Outgoing<OrderLine & WithOwn>>> {
  const lead = askedField(ask, ask.sort.field)
  const { keys, byState } = lead.own ? ownRun(lead) : RUNS[ask.sort.field]!
  const clause = ask.clauses.find((one) => one.field === 'state')
  const states = ORDER_STATES.filter((state) => !clause || clause.any!.includes(state) !== (clause.not ?? false))
  // State by state, each in the order of its index, rather than all of them sorted; the few that are named are looked up once.
  const split = byState && !isNamed(ask)
  const where = orderConditions(split ? { ...ask, clauses: ask.clauses.filter((one) => one !== clause) } : ask, from)
  return keysetPage({
    run: { keys, down: ask.sort.down },
    parts: split ? states.map((state) => eq(orders.state, state)) : [undefined],
    after,
    limit,
    readKeys: (part, order, most, stretch) =>
      lead.own
        ? (ownKeys(db, orders, lead, { where: and(part, where), all: where, order, most, stretch }) as Promise<Key[]>)
        : db
            .select(KEYS)
            .from(orders)
            .where(and(part, where))
            .orderBy(...order)
            .limit(most),
    readRows: (ids) => withOwn(db, ask, ids, orderLinesOf(db, ids)),
  })
}
