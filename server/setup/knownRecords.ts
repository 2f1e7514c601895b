import { and, eq, inArray, isNull, or } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import type { OwnField } from '#core/own'
import type { FieldValue, NamedKind } from '#core/registers'
import { indexNames, keyField, NOTHING_KNOWN } from '#core/setup'
import type { KnownRecords, NameIndex, TableField, TableKind, TableRow } from '#core/setup'
import type { Reader } from '#server/kit'
import { ownValuesOfMany } from '#server/own'
import { RECORD_TABLES } from '#server/registers'
import { accounts, assets, categories, payers, people, places, teams, trades, vendors } from '../tables'

const AT_ONCE = 1_000

interface NamedTable {
  table: MySqlTable
  id: MySqlColumn
  code: MySqlColumn | null
  name: MySqlColumn
  siteId: MySqlColumn | null
}
const NAMED: Partial<Record<NamedKind, NamedTable>> = {
  place: { table: places, id: places.id, code: places.code, name: places.name, siteId: places.siteId },
  asset: { table: assets, id: assets.id, code: assets.tag, name: assets.name, siteId: assets.siteId },
  person: { table: people, id: people.id, code: people.email, name: people.name, siteId: people.siteId },
  team: { table: teams, id: teams.id, code: null, name: teams.name, siteId: teams.siteId },
  vendor: { table: vendors, id: vendors.id, code: null, name: vendors.name, siteId: null },
  trade: { table: trades, id: trades.id, code: null, name: trades.name, siteId: null },
  category: { table: categories, id: categories.id, code: categories.code, name: categories.name, siteId: null },
  payer: { table: payers, id: payers.id, code: payers.code, name: payers.name, siteId: null },
}

/** What the cells of a table name, looked for at the site: by code, by name, and by both as a list shows them. */
export async function namesKnown(db: Reader, siteId: number, fields: readonly TableField[], rows: readonly TableRow[]): Promise<NameIndex> {
  const cells = new Map<NamedKind, Set<string>>()
  for (const { code, cell } of fields) {
    const of = cell?.of === 'record' ? (cell.field.kind === 'named' ? cell.field.of : null) : cell?.field.shape === 'person' ? 'person' : null
    if (!of) continue
    const wanted = cells.get(of) ?? new Set()
    for (const row of rows) if (row.fields[code]) wanted.add(row.fields[code])
    cells.set(of, wanted)
  }
  const found: NameIndex = {}
  for (const [of, wanted] of cells)
    found[of] = indexNames(await (of === 'account' ? accountsLike(db, siteId, [...wanted]) : namedLike(db, siteId, NAMED[of], [...wanted])))
  return found
}

/** People with an open account at the site, by name or mail address. */
async function accountsLike(db: Reader, siteId: number, cells: string[]): Promise<{ id: number; code: string | null; name: string }[]> {
  if (!cells.length) return []
  return db
    .select({ id: accounts.id, code: accounts.email, name: people.name })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(eq(people.siteId, siteId), isNull(accounts.disabledAt), or(inArray(people.name, cells), inArray(accounts.email, cells))))
}

async function namedLike(
  db: Reader,
  siteId: number,
  named: NamedTable | undefined,
  cells: string[],
): Promise<{ id: number; code: string | null; name: string }[]> {
  if (!named) return []
  const found = new Map<number, { id: number; code: string | null; name: string }>()
  for (let at = 0; at < cells.length; at += AT_ONCE) {
    const some = cells.slice(at, at + AT_ONCE)
    // A list shows the code before the name: what stands before the first blank may be one.
    const codes = [...new Set([...some, ...some.map((cell) => cell.split(' ')[0]!)])]
    const rows = await db
      .select({ id: named.id, ...(named.code ? { code: named.code } : {}), name: named.name })
      .from(named.table)
      .where(and(or(named.code ? inArray(named.code, codes) : undefined, inArray(named.name, some)), named.siteId ? eq(named.siteId, siteId) : undefined))
    for (const row of rows as { id: number; code?: string | null; name: string }[]) found.set(row.id, { code: null, ...row })
  }
  return [...found.values()]
}

/** The records of a register that have the keys of a table, with what stands in their fields. */
export async function recordsKnown(
  db: Reader,
  { kind, siteId, fields, own, rows }: { kind: TableKind; siteId: number; fields: readonly TableField[]; own: OwnField[]; rows: readonly TableRow[] },
): Promise<KnownRecords> {
  const table = RECORD_TABLES[kind]
  const { code } = keyField(kind)
  const column = (table as unknown as Record<string, MySqlColumn>)[code]!
  const keys = [...new Set(rows.map((row) => row.fields[code]).filter((key) => !!key))] as string[]
  const known: KnownRecords = { ...NOTHING_KNOWN, values: {}, ids: {}, retired: [], names: await namesKnown(db, siteId, fields, rows) }
  for (let at = 0; at < keys.length; at += AT_ONCE) {
    const where: SQL | undefined = and(inArray(column, keys.slice(at, at + AT_ONCE)), table.siteId ? eq(table.siteId, siteId) : undefined)
    const found = (await db.select().from(table).where(where)) as ({ id: number; retiredAt: Date | null } & Record<string, FieldValue>)[]
    for (const row of found) {
      const key = String(row[code]).toLowerCase()
      known.ids[key] = row.id
      known.values[key] = Object.fromEntries(fields.flatMap((field) => (field.cell?.of === 'record' ? [[field.code, row[field.code] ?? null]] : [])))
      if (row.retiredAt) known.retired.push(key)
    }
  }
  await addOwn(db, known, own)
  return known
}

/** Adds what stands in the own fields of the records that are known by their ids. */
export async function addOwn(db: Reader, known: KnownRecords, own: OwnField[]): Promise<void> {
  const written = await ownValuesOfMany(db, own, Object.values(known.ids))
  for (const [key, id] of Object.entries(known.ids)) known.values[key] = { ...known.values[key], ...written.get(id) }
}
