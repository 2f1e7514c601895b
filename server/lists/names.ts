import { and, eq, inArray, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { askedField } from '#core/lists'
import type { ListAsk, Register } from '#core/lists'
import { withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { accounts, assets, categories, ownStates, payers, people, places, sites, teams, technicians, trades, vendors } from '../tables'

type Named = { id: number; name: string }
const coded = (code: unknown, name: unknown): SQL<string> => sql<string>`concat(${code}, ' ', ${name})`

export const NAMES: Record<Register, (db: Reader, ids: number[], who: Pick<Asker, 'siteIds'>) => Promise<Named[]>> = {
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
  ownState: (db, ids) => db.select({ id: ownStates.id, name: ownStates.name }).from(ownStates).where(inArray(ownStates.id, ids)),
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
  person: (db, ids, who) =>
    db
      .select({ id: people.id, name: people.name })
      .from(people)
      .where(and(inArray(people.id, ids), withinSites(who, people.siteId))),
  site: (db, ids, who) =>
    db
      .select({ id: sites.id, name: sites.name })
      .from(sites)
      .where(and(inArray(sites.id, ids), withinSites(who, sites.id))),
  vendor: (db, ids) => db.select({ id: vendors.id, name: vendors.name }).from(vendors).where(inArray(vendors.id, ids)),
}

/** What the ids of every clause are called. */
export async function namesIn(db: Reader, who: Asker, ask: ListAsk): Promise<Record<string, Record<string, string>>> {
  const named = ask.clauses.filter((clause) => clause.any && askedField(ask, clause.field).register)
  const rows = await Promise.all(
    named.map(async (clause) => {
      const ids = clause.any!.filter((value) => /^\d+$/.test(value)).map(Number)
      const found = ids.length ? await NAMES[askedField(ask, clause.field).register!](db, ids, who) : []
      return [clause.field, Object.fromEntries(found.map((row) => [row.id, row.name]))] as const
    }),
  )
  return Object.fromEntries(rows)
}
