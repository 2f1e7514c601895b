import { and, eq, inArray } from 'drizzle-orm'
import type { OwnSheet } from '#contract/own'
import { isSettled } from '#core/orders'
import { OWN_COLUMNS, ownName, ownSays } from '#core/own'
import type { OwnField, OwnKind, OwnValue } from '#core/own'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { seenThing } from '#server/registers'
import { orders, ownValues, ownVersions, people } from '../tables'
import { ownFieldsOf } from './ownFields'

/** What own fields are of: where it stands and what keeps them from being changed. */
export interface OwnRecord {
  siteId: number | null
  whyNot: string | null
}

/** The record the values are of. @throws ProblemReply 404 when it is not theirs to see */
export async function ownRecord(db: Reader, who: Asker, kind: OwnKind, id: number): Promise<OwnRecord> {
  const { siteId, retired, mayEdit } = await seenThing(db, who, kind, id)
  if (!mayEdit) return { siteId, whyNot: 'Your role does not include changing this.' }
  return { siteId, whyNot: retired ? 'It is retired. Take it into use again to change it.' : kind === 'orders' ? await whySettled(db, id) : null }
}

async function whySettled(db: Reader, orderId: number): Promise<string | null> {
  const [row] = await db.select({ state: orders.state }).from(orders).where(eq(orders.id, orderId))
  return isSettled(row!.state) ? 'The order is settled: what is written of it stays as it is.' : null
}

/** What stands in these fields of one record, by their names; nothing where nothing was written. */
export async function ownValuesOf(db: Reader, fields: OwnField[], id: number): Promise<Record<string, OwnValue>> {
  const written = (await ownValuesOfMany(db, fields, [id])).get(id)
  return { ...Object.fromEntries(fields.map((field) => [ownName(field.id), null])), ...written }
}

const AT_ONCE = 1_000

/** What is written in these fields of many records. */
export async function ownValuesOfMany(db: Reader, fields: OwnField[], ids: number[]): Promise<Map<number, Record<string, OwnValue>>> {
  const found = new Map<number, Record<string, OwnValue>>()
  if (!fields.length) return found
  const byId = new Map(fields.map((field) => [field.id, field]))
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    const rows = await db
      .select()
      .from(ownValues)
      .where(and(inArray(ownValues.recordId, ids.slice(at, at + AT_ONCE)), inArray(ownValues.fieldId, [...byId.keys()])))
    for (const row of rows) found.set(row.recordId, { ...found.get(row.recordId), [ownName(row.fieldId)]: row[OWN_COLUMNS[byId.get(row.fieldId)!.shape]] })
  }
  return found
}

/** What the persons in these values are called, by field. */
export async function personsIn(db: Reader, fields: OwnField[], values: Record<string, OwnValue>): Promise<Record<string, string>> {
  const asked = fields.filter((field) => field.shape === 'person' && typeof values[ownName(field.id)] === 'number')
  if (!asked.length) return {}
  const rows = await db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(
      inArray(
        people.id,
        asked.map((field) => Number(values[ownName(field.id)])),
      ),
    )
  return Object.fromEntries(asked.map(({ id }) => [ownName(id), rows.find((row) => row.id === values[ownName(id)])?.name ?? '']))
}

/** What stands in the own fields of a record, in words by what the fields are called. */
export async function ownWords(db: Reader, kind: OwnKind, id: number, day: (day: string) => string): Promise<Record<string, string>> {
  const fields = await ownFieldsOf(db, kind)
  const values = await ownValuesOf(db, fields, id)
  const names = await personsIn(db, fields, values)
  return Object.fromEntries(fields.map((field) => [field.label, ownSays(field, values[ownName(field.id)] ?? null, () => names[ownName(field.id)] ?? '', day)]))
}

export async function ownSheet(db: Reader, kind: OwnKind, id: number, whyNot: string | null): Promise<Outgoing<OwnSheet>> {
  const fields = await ownFieldsOf(db, kind)
  const [values, version] = await Promise.all([ownValuesOf(db, fields, id), ownVersion(db, kind, id)])
  return { id, kind, version, whyNot, fields, names: await personsIn(db, fields, values), ...values }
}

export async function ownVersion(db: Reader, kind: OwnKind, id: number): Promise<number> {
  const [row] = await db
    .select({ version: ownVersions.version })
    .from(ownVersions)
    .where(and(eq(ownVersions.kind, kind), eq(ownVersions.recordId, id)))
  return row?.version ?? 0
}
