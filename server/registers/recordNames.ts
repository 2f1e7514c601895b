import { inArray, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { unionAll } from 'drizzle-orm/mysql-core'
import { namedIn } from '#core/registers'
import type { AnyFieldTable, NamedKind } from '#core/registers'
import type { Reader } from '#server/kit'
import { accounts, assets, categories, payers, people, places, teams, trades, vendors } from '../tables'

const both = (code: MySqlColumn, name: MySqlColumn) => sql<string>`concat(${code}, ' ', ${name})`
const NAMES: Record<NamedKind, { table: MySqlTable; id: MySqlColumn; name: SQL<string> }> = {
  place: { table: places, id: places.id, name: both(places.code, places.name) },
  asset: { table: assets, id: assets.id, name: both(assets.tag, assets.name) },
  person: { table: people, id: people.id, name: sql<string>`${people.name}` },
  team: { table: teams, id: teams.id, name: sql<string>`${teams.name}` },
  vendor: { table: vendors, id: vendors.id, name: sql<string>`${vendors.name}` },
  payer: { table: payers, id: payers.id, name: both(payers.code, payers.name) },
  trade: { table: trades, id: trades.id, name: sql<string>`${trades.name}` },
  category: { table: categories, id: categories.id, name: sql<string>`${categories.name}` },
  account: {
    table: accounts,
    id: accounts.id,
    name: sql<string>`(select ${people.name} from ${people} where ${people.id} = ${accounts.personId})`,
  },
}

/** What the ids in the fields of a record are called, by field. One statement at most. */
export async function namesIn(db: Reader, fields: AnyFieldTable, row: Record<string, unknown>): Promise<Record<string, string>> {
  const asked = namedIn(fields).flatMap(({ name, of }) => (typeof row[name] === 'number' ? [{ name, of, id: row[name] }] : []))
  if (!asked.length) return {}
  const parts = [...new Set(asked.map((one) => one.of))].map((of) => {
    const { table, id, name } = NAMES[of]
    const ids = asked.filter((one) => one.of === of).map((one) => one.id)
    return db
      .select({ of: sql<string>`${of}`.as('of'), id: sql<number>`${id}`.as('id'), name: name.as('name') })
      .from(table)
      .where(inArray(id, ids))
  })
  const [first, second, ...rest] = parts
  const rows = await (second ? unionAll(first!, second, ...rest) : first!)
  return Object.fromEntries(asked.map(({ name, of, id }) => [name, rows.find((one) => one.of === of && Number(one.id) === id)?.name ?? '']))
}
