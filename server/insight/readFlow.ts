import { and, inArray, isNull, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/insight'
import type { StationCount } from '#contract/insight'
import { STATIONS, STATION_STATES } from '#core/orders'
import type { Station } from '#core/orders'
import { query, standsLike, withinSites } from '#server/kit'
import { atIntake, atTriage } from '#server/requests'
import { orders, requests } from '../tables'

export default query(contract.readFlow, async ({ db, who, now }) => {
  const perState = await db
    .select({ state: orders.state, ...tide(orders.closeAt, orders.completionDueAt, sql`coalesce(${orders.finishedAt}, ${orders.clockStoppedAt}, ${now})`) })
    .from(orders)
    .where(and(inArray(orders.state, Object.values(STATION_STATES).flat()), isNull(orders.discardedAt), withinSites(who, orders.siteId)))
    .groupBy(orders.state)
  const [intake] = await db
    .select(tide(requests.triageCloseAt, requests.triageDueAt, sql`${now}`))
    .from(requests)
    .where(and(atIntake, withinSites(who, requests.siteId)))
  const [triage] = await db
    .select(tide(requests.triageCloseAt, requests.triageDueAt, sql`${now}`))
    .from(requests)
    .where(and(atTriage, withinSites(who, requests.siteId)))
  const sumOf = (station: Station): Counts[] =>
    station === 'intake' ? [intake!] : station === 'triage' ? [triage!] : perState.filter((row) => STATION_STATES[station].includes(row.state))
  return { stations: STATIONS.map((station) => toCount(station, sumOf(station))), now }
})

interface Counts {
  all: string | number
  close: string | number
  past: string | number
}

/** Counts by standing. */
function tide(closeAt: MySqlColumn, completionDueAt: MySqlColumn, at: SQL) {
  const edges = { closeAt, completionDueAt }
  return {
    all: sql<string>`count(*)`,
    close: sql<string>`coalesce(sum(${standsLike('close', at, edges)}), 0)`,
    past: sql<string>`coalesce(sum(${standsLike('past', at, edges)}), 0)`,
  }
}

function toCount(station: Station, rows: Counts[]): StationCount {
  const sum = (key: keyof Counts) => rows.reduce((total, row) => total + Number(row[key]), 0)
  const count = sum('all')
  const close = sum('close')
  const past = sum('past')
  return { station, count, onTime: count - close - past, close, past }
}
