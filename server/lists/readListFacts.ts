import { and, eq, inArray, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import * as contract from '#contract/lists'
import { listField } from '#core/lists'
import type { ListAsk, Register } from '#core/lists'
import { query, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { accounts, assets, categories, orders, payers, people, places, requests, teams, technicians, trades, vendors } from '../tables'
import { orderConditions } from './orderLines'
import { requestConditions } from './requestLines'
import { askFrom, standpointOf } from './standpoint'

/** Counting goes on no further: who has more rows than this narrows the list rather than reading on. */
const MOST_COUNTED = 10_000

export default query(contract.readListFacts, async ({ db, who, input, now }) => {
  const ask = askFrom(input.kind, input.ask)
  const from = await standpointOf(db, who, now)
  const [table, where] = input.kind === 'orders' ? [orders, orderConditions(ask, from)] : [requests, requestConditions(ask, from)]
  const some = db
    .select({ one: sql`1`.as('one') })
    .from(table)
    .where(where)
    .limit(MOST_COUNTED + 1)
    .as('some')
  const [[counted], names] = await Promise.all([db.select({ n: sql<string>`count(*)` }).from(some), namesIn(db, who, ask)])
  const count = Number(counted!.n)
  return { count: Math.min(count, MOST_COUNTED), more: count > MOST_COUNTED, names }
})

/** What the ids of every clause are called. */
async function namesIn(db: Reader, who: Asker, ask: ListAsk): Promise<Record<string, Record<string, string>>> {
  const named = ask.clauses.filter((clause) => clause.any && listField(ask.kind, clause.field)?.register)
  const rows = await Promise.all(
    named.map(async (clause) => {
      const ids = clause.any!.filter((value) => /^\d+$/.test(value)).map(Number)
      const found = ids.length ? await NAMES[listField(ask.kind, clause.field)!.register!](db, ids, who) : []
      return [clause.field, Object.fromEntries(found.map((row) => [row.id, row.name]))] as const
    }),
  )
  return Object.fromEntries(rows)
}

type Named = { id: number; name: string }
const coded = (code: unknown, name: unknown): SQL<string> => sql<string>`concat(${code}, ' ', ${name})`

export const NAMES: Record<Register, (db: Reader, ids: number[], who: Asker) => Promise<Named[]>> = {
  place: (db, ids, who) =>
    db
      .select({ id: places.id, name: coded(places.code, places.name) })
      .from(places)
      .where(and(inArray(places.id, ids), withinSites(who, places.siteId))),
  asset: (db, ids, who) =>
    db
      .select({ id: assets.id, name: coded(assets.tag, assets.name) })
      .from(assets)
      .where(and(inArray(assets.id, ids), withinSites(who, assets.siteId))),
  category: (db, ids) => db.select({ id: categories.id, name: categories.name }).from(categories).where(inArray(categories.id, ids)),
  trade: (db, ids) => db.select({ id: trades.id, name: trades.name }).from(trades).where(inArray(trades.id, ids)),
  team: (db, ids) => db.select({ id: teams.id, name: teams.name }).from(teams).where(inArray(teams.id, ids)),
  account: (db, ids) =>
    db.select({ id: accounts.id, name: people.name }).from(accounts).innerJoin(people, eq(people.id, accounts.personId)).where(inArray(accounts.id, ids)),
  payer: (db, ids) =>
    db
      .select({ id: payers.id, name: coded(payers.code, payers.name) })
      .from(payers)
      .where(inArray(payers.id, ids)),
  technician: (db, ids) =>
    db
      .select({ id: technicians.id, name: people.name })
      .from(technicians)
      .innerJoin(accounts, eq(accounts.id, technicians.accountId))
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(inArray(technicians.id, ids)),
  vendor: (db, ids) => db.select({ id: vendors.id, name: vendors.name }).from(vendors).where(inArray(vendors.id, ids)),
}
