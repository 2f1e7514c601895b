import { and, eq, inArray, isNotNull, isNull, like, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import type { RecordCell, WithOwn } from '#contract/lists'
import type { Clause, ListAsk, ListField } from '#core/lists'
import type { OwnKind } from '#core/own'
import { likeText } from '#server/kit'
import type { Reader } from '#server/kit'
import { ownFields, ownValues, people } from '../tables'
import { byAmount, byDate, byText, byValue } from './conditions'
import type { Condition } from './conditions'
import type { Standpoint } from './standpoint'

/** The values of the field a list runs or is brought together by. */
export const ownLead = alias(ownValues, 'own_lead')

type Values = typeof ownValues | typeof ownLead
/** Where what is asked of it stands. */
export function ownColumn(field: ListField, values: Values = ownValues): MySqlColumn {
  if (field.shape === 'date') return values.day
  return field.shape === 'text' || field.shape === 'choice' ? values.text : values.number
}

/** That a row has something in an own field, and something in particular. */
export const ownOf = (field: ListField, id: MySqlColumn) => and(eq(ownLead.fieldId, field.own!), eq(ownLead.recordId, id))

/** What a clause asks of an own field: the records its index leads to, or all others. */
export function ownCondition(field: ListField, id: MySqlColumn, clause: Clause, from: Standpoint): SQL {
  const column = ownColumn(field)
  const among = (what: SQL | undefined) =>
    sql`${id} in (select ${ownValues.recordId} from ${ownValues} where ${ownValues.fieldId} = ${field.own!} and ${what ?? isNotNull(column)})`
  if (clause.empty !== undefined) return clause.empty ? sql`not ${among(undefined)}` : among(undefined)
  if (field.shape === 'flag') {
    const yes = among(eq(column, 1))
    return clause.any![0] === 'yes' ? yes : sql`not ${yes}`
  }
  const asked = { ...clause, not: undefined }
  const found = among(conditionOn(field, column)(asked, from))
  return clause.not ? sql`not ${found}` : found
}

function conditionOn(field: ListField, column: MySqlColumn): Condition {
  if (field.shape === 'date') return byDate(column)
  if (field.shape === 'number') return byAmount(column)
  return field.shape === 'text' ? byText(column) : byValue(column)
}

/** What stands in the own fields among these columns, by record and column. */
export async function ownCells(db: Reader, fields: readonly ListField[], ids: number[]): Promise<Map<number, Record<string, RecordCell>>> {
  const own = fields.filter((field) => field.own)
  const cells = new Map<number, Record<string, RecordCell>>()
  if (!own.length || !ids.length) return cells
  const rows = await db
    .select()
    .from(ownValues)
    .where(
      and(
        inArray(
          ownValues.fieldId,
          own.map((field) => field.own!),
        ),
        inArray(ownValues.recordId, ids),
      ),
    )
  const persons = await personNames(db, own, rows)
  for (const row of rows) {
    const field = own.find((one) => one.own === row.fieldId)!
    const value = field.shape === 'date' ? row.day : field.shape === 'text' || field.shape === 'choice' ? row.text : row.number
    const cell = field.register ? (persons.get(Number(value)) ?? null) : field.shape === 'flag' ? value === 1 : value
    cells.set(row.recordId, { ...cells.get(row.recordId), [field.name]: cell })
  }
  return cells
}

/** The same rows, each with what stands in the own fields among its columns. */
export async function withOwn<Line extends { id: number }>(db: Reader, ask: ListAsk, ids: number[], rows: Promise<Line[]>): Promise<(Line & WithOwn)[]> {
  const [lines, cells] = await Promise.all([
    rows,
    ownCells(
      db,
      ask.fields.filter((field) => ask.columns.includes(field.name)),
      ids,
    ),
  ])
  return lines.map((line) => ({ ...line, own: cells.get(line.id) ?? {} }))
}

async function personNames(db: Reader, own: ListField[], rows: (typeof ownValues.$inferSelect)[]): Promise<Map<number, string>> {
  const asked = new Set(own.filter((field) => field.register).map((field) => field.own))
  const ids = rows.flatMap((row) => (asked.has(row.fieldId) && row.number !== null ? [row.number] : []))
  if (!ids.length) return new Map()
  return new Map((await db.select({ id: people.id, name: people.name }).from(people).where(inArray(people.id, ids))).map((row) => [row.id, row.name]))
}

const MOST_BEGUN = 40

/** The records with a text of their own that begins like this, by what they are of; each field is asked by its index. */
export async function ownBegunWith(db: Reader, text: string): Promise<Map<OwnKind, number[]>> {
  const found = new Map<OwnKind, number[]>()
  if (text.length < 3) return found
  const fields = await db
    .select({ id: ownFields.id, kind: ownFields.kind })
    .from(ownFields)
    .where(and(inArray(ownFields.shape, ['text', 'link']), isNull(ownFields.retiredAt)))
  const rows = await Promise.all(
    fields.map((field) =>
      db
        .select({ id: ownValues.recordId })
        .from(ownValues)
        .where(and(eq(ownValues.fieldId, field.id), like(ownValues.text, `${likeText(text)}%`)))
        .limit(MOST_BEGUN),
    ),
  )
  fields.forEach(({ kind }, index) => found.set(kind, [...(found.get(kind) ?? []), ...rows[index]!.map((row) => row.id)]))
  return found
}
