import { eq, inArray } from 'drizzle-orm'
import type { Permission } from '#core/people'
import { KINDS } from '#contract/portraits'
import { ownId } from '#core/own'
import type { OwnField } from '#core/own'
import type { FieldValue } from '#core/registers'
import { keyOfRow, ownKindOf, USUAL } from '#core/setup'
import type { BadRow, ReadTable, TableKind, TableRow } from '#core/setup'
import { acting, recordEvent, refusedFor } from '#server/kit'
import type { Asker, Tell, Tx } from '#server/kit'
import { takeOwnValues } from '#server/own'
import { KEEPERS } from '#server/portraits'
import { editRecord, insertRecord } from '#server/registers'
import type { Changing } from '#server/registers'

export interface Taking {
  tx: Tx
  who: Asker
  now: Date
  tell: Tell
}

/** What became of the rows. */
export interface Taken {
  fresh: number
  changed: number
  /** Refused by the rules of the register, as if they had been typed. */
  bad: BadRow[]
  /** Ids by key, for the fields of one's own. */
  ids: Map<string, number>
}

/** Enters and changes records of a register row by row, each whole or not at all, by the same rules as a form. */
export async function takeRecords({ tx, who, now }: Taking, kind: TableKind, siteId: number, table: ReadTable, known: Record<string, number>): Promise<Taken> {
  const keeper = KEEPERS[kind]
  const asker = acting(who, KINDS[kind].edit.may as Permission)
  const taken: Taken = { fresh: 0, changed: 0, bad: [], ids: new Map(Object.entries(known)) }
  const take = async (row: TableRow, isFresh: boolean) => {
    const key = keyOfRow(kind, row.fields)
    const sent = { ...recordValues(row), ...named(row, taken.ids) }
    await tx.transaction(async (inner) => {
      const changing: Changing = { tx: inner, who: asker, now, tell: (happening) => recordEvent(inner, asker, now, happening) }
      if (isFresh) taken.ids.set(key, (await insertRecord(changing, keeper, { ...USUAL_OF[kind], ...sent, ...(keeper.table.siteId ? { siteId } : {}) })).id)
      else if (Object.keys(sent).length) await editRecord(changing, keeper, await versionOf(inner, kind, taken.ids.get(key)!), sent)
    })
  }
  for (const [rows, isFresh] of [
    [table.fresh, true],
    [table.changed, false],
  ] as const)
    for (const row of rows) {
      const lacking = Object.values(row.names ?? {}).find((key) => !taken.ids.has(key))
      if (lacking !== undefined) {
        taken.bad.push({ line: row.line, sentences: [`${lacking.toUpperCase()}, which it names, is not taken.`], cells: row.cells })
        continue
      }
      try {
        await take(row, isFresh)
        if (isFresh) taken.fresh++
        else taken.changed++
      } catch (error) {
        taken.bad.push({ line: row.line, sentences: refusedFor(error).map(({ sentence }) => sentence), cells: row.cells })
      }
    }
  return taken
}

const USUAL_OF: Partial<Record<TableKind, Record<string, FieldValue>>> = { assets: USUAL }

const recordValues = ({ values = {} }: TableRow) => Object.fromEntries(Object.entries(values).filter(([code]) => ownId(code) === null))

/** The ids of the rows this one names, which are there by now. */
const named = ({ names = {} }: TableRow, ids: Map<string, number>) => Object.fromEntries(Object.entries(names).map(([code, key]) => [code, ids.get(key)!]))

async function versionOf(tx: Tx, kind: TableKind, id: number): Promise<{ id: number; version: number }> {
  const { table } = KEEPERS[kind]
  const [row] = (await tx.select({ version: table.version }).from(table).where(eq(table.id, id)).for('update')) as [{ version: number }]
  return { id, version: row.version }
}

/** Writes the fields of one's own of the rows that are there. */
export async function takeOwn(taking: Taking, kind: TableKind, rows: readonly TableRow[], own: readonly OwnField[], ids: Map<string, number>): Promise<void> {
  const of = ownKindOf(kind)
  if (!of || !own.length) return
  const values = rows.flatMap((row) => {
    const recordId = ids.get(keyOfRow(kind, row.fields))
    return recordId === undefined
      ? []
      : own.flatMap(({ id, label }) => {
          const value = row.values?.[`own${id}`]
          return value === undefined ? [] : [{ fieldId: id, label, recordId, value }]
        })
  })
  await takeOwnValues(taking, of, values)
}

/** The ids of people or places with these keys, once they are there. */
export async function idsOf(tx: Tx, kind: 'people' | 'places', siteId: number, rows: readonly TableRow[]): Promise<Map<string, number>> {
  const { table } = KEEPERS[kind]
  const columns = table as unknown as Record<string, typeof table.id>
  const key = columns[kind === 'people' ? 'email' : 'code']!
  const found = new Map<string, number>()
  const keys = rows.map((row) => keyOfRow(kind, row.fields))
  for (let at = 0; at < keys.length; at += 1_000) {
    const read = (await tx
      .select({ id: table.id, key, siteId: columns.siteId! })
      .from(table)
      .where(inArray(key, keys.slice(at, at + 1_000)))) as { id: number; key: string; siteId: number }[]
    for (const row of read) if (row.siteId === siteId) found.set(row.key.toLowerCase(), row.id)
  }
  return found
}
