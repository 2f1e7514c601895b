import { eq, inArray, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { OrderLine } from '#contract/orders'
import type { Outgoing, Reader } from '#server/kit'
import { accounts, assets, categories, orders, orderShares, ownStates, payers, people, places, sites, teams, trades, visits } from '../tables'
import { gaugeTarget, TARGET_COLUMNS } from './targetOf'
import { whoIsOn } from './whoIsOn'

const firstStart = sql<Date | null>`(select min(${visits.plannedStart}) from ${visits} where ${visits.orderId} = ${orders.id} and ${visits.state} <> 'recalled')`
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
      ...TARGET_COLUMNS,
      closedAt: orders.closedAt,
      createdAt: orders.createdAt,
      discardedAt: orders.discardedAt,
      archived: orders.archived,
      estimateMinor: orders.estimateMinor,
      holdReason: orders.holdReason,
      ownState: ownStates.name,
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
    .leftJoin(ownStates, eq(ownStates.id, orders.ownStateId))
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
/** These orders as queues and lists show them, in any order. */
export async function orderLinesOf(db: Reader, ids: number[]): Promise<Outgoing<OrderLine>[]> {
  return (await select(db).where(inArray(orders.id, ids))).map(toLine)
}

type Found = Awaited<ReturnType<typeof select>>[number]

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
    ownstate: row.ownState,
    contact: row.contactName,
    reference: row.outsideReference,
    archived: row.archived,
    discarded: row.discardedAt !== null,
  }
}
