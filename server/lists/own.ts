import { and, eq, getTableName, gte, inArray, isNotNull, isNull, like, lt, max, min, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import type { RecordCell, WithOwn } from '#contract/lists'
import { askedField } from '#core/lists'
import type { Clause, ListAsk, ListField } from '#core/lists'
import type { OwnKind } from '#core/own'
import { indexedWords, isOutOfTime, likeText } from '#server/kit'
import type { Reader, Stretch } from '#server/kit'
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

type WithId = MySqlTable & { id: MySqlColumn }

/** What a list that runs by an own field reads of each row. */
export interface OwnKey {
  id: number
  own: string | number | null
}
/** Up to so many rows are put in order as they are found; more are read in the order of the field's own index. */
const MOST_SORTED = 3_000

/**
 * The keys of a list that runs by an own field. Few rows are sorted; of many, the index of the field leads, and each is
 * looked at in its order until enough are found: the database would rather sort them all.
 */
export async function ownKeys(
  db: Reader,
  table: WithId,
  lead: ListField,
  { where, all, order, most, stretch }: { where: SQL | undefined; all: SQL | undefined; order: SQL[]; most: number; stretch: Stretch },
): Promise<OwnKey[]> {
  const column = ownColumn(lead, ownLead)
  const keys = {
    id: sql<number>`${sql.identifier(getTableName(table))}.id`,
    own: sql<string | number | null>`own_lead.${sql.identifier(column.name)}`.mapWith(column),
  }
  const many = stretch === 'filled' && (await isMany(db, table, all))
  const from = many
    ? sql`${ownValues} own_lead straight_join ${table} on ${ownOf(lead, table.id)}`
    : sql`${table} left join ${ownValues} own_lead on ${ownOf(lead, table.id)}`
  const rows = await db
    .select(keys)
    .from(from)
    .where(where)
    .orderBy(...order)
    .limit(most)
  return rows.map((row) => ({ id: Number(row.id), own: row.own as OwnKey['own'] }))
}

async function isMany(db: Reader, table: WithId, where: SQL | undefined): Promise<boolean> {
  const some = db
    .select({ one: sql`1`.as('one') })
    .from(table)
    .where(where)
    .limit(MOST_SORTED + 1)
    .as('some')
  const [counted] = await db.select({ n: sql<string>`count(*)` }).from(some)
  return Number(counted!.n) > MOST_SORTED
}

/** So many records are named one by one; where more are meant, each row is asked. */
const MOST_NAMED = 10_000
/** A part of a text is looked for in so many stretches of its index at once, each by a connection of its own. */
const STRETCHES = 4
const SAMPLES = 16

/** Clauses on own fields that are true of few records are answered by the index of the field before the list is read. */
export async function resolveOwn(db: Reader, ask: ListAsk, from: Standpoint): Promise<ListAsk> {
  const clauses = await Promise.all(
    ask.clauses.map(async (clause): Promise<Clause> => {
      const field = askedField(ask, clause.field)
      if (!field.own || clause.not || clause.empty !== undefined || clause.any?.[0] === 'no') return clause
      const stretches = field.shape === 'text' ? await stretchesOf(db, field.own) : [undefined]
      const found = await Promise.all(
        stretches.map((stretch) =>
          db
            .select({ id: ownValues.recordId })
            // Left to itself the database reads the records of the field, whatever the stretch.
            .from(ownValues, stretch ? { forceIndex: ['own_value_text'] } : {})
            .where(and(eq(ownValues.fieldId, field.own!), stretch, valueOf(field, clause, from)))
            .limit(MOST_NAMED + 1),
        ),
      )
      const rows = found.flat()
      return rows.length > MOST_NAMED ? clause : { ...clause, records: rows.map((row) => row.id) }
    }),
  )
  return { ...ask, clauses }
}

/** Whether a list is of rows that are found before it is read: by words, or by what stands in an own field. */
export const isNamed = ({ clauses }: ListAsk): boolean => clauses.some(({ field, records }) => field === 'words' || records !== undefined)

/**
 * Stretches of the texts of a field that hold about as much each, by texts that stand here and there among its records.
 * No index finds what stands inside a text, so that all of them are read, and the time that takes is shared.
 */
async function stretchesOf(db: Reader, fieldId: number): Promise<(SQL | undefined)[]> {
  const mine = eq(ownValues.fieldId, fieldId)
  const [ends] = await db
    .select({ first: min(ownValues.recordId), last: max(ownValues.recordId) })
    .from(ownValues)
    .where(mine)
  const { first, last } = ends!
  if (first === null || last === null || last - first < SAMPLES * 1_000) return [undefined]
  const at = (part: number) => first + Math.floor(((last - first) * part) / SAMPLES)
  const samples = Array.from(
    { length: SAMPLES },
    (_, part) =>
      sql`(select ${ownValues.text} as one from ${ownValues} where ${mine} and ${ownValues.recordId} >= ${at(part)} order by ${ownValues.recordId} limit 1)`,
  )
  const [rows] = (await db.execute(
    sql`select distinct one from (${sql.join(samples, sql` union all `)}) some where one is not null order by one`,
  )) as unknown as [{ one: string }[]]
  const marks = [...new Set(Array.from({ length: STRETCHES - 1 }, (_, part) => rows[Math.floor((rows.length * (part + 1)) / STRETCHES)]?.one))].filter(
    (one) => one !== undefined,
  )
  return [...marks, undefined].map((mark, index) =>
    and(index ? gte(ownValues.text, marks[index - 1]!) : undefined, mark === undefined ? undefined : lt(ownValues.text, mark)),
  )
}

/** What a clause asks of the value itself. */
function valueOf(field: ListField, clause: Clause, from: Standpoint): SQL | undefined {
  const column = ownColumn(field)
  if (clause.empty !== undefined) return isNotNull(column)
  return field.shape === 'flag' ? eq(column, 1) : conditionOn(field, column)({ ...clause, not: undefined }, from)
}

/** What a clause asks of a row by an own field: to be one of the records it is true of, or to hold such a value. */
export function ownCondition(field: ListField, id: MySqlColumn, clause: Clause, from: Standpoint): SQL {
  if (clause.records) return clause.records.length ? inArray(id, clause.records) : sql`1 = 0`
  const holds = sql`exists (select 1 from ${ownValues} where ${ownValues.fieldId} = ${field.own!} and ${ownValues.recordId} = ${id} and ${valueOf(field, clause, from)})`
  return clause.not || clause.empty || clause.any?.[0] === 'no' ? sql`not ${holds}` : holds
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

const MOST_FOUND = 40
/** The index of words may take this long: what is written in fields of one's own is looked for beside much else. */
const MOST_SECONDS = 0.5

/** The records with a text of their own that begins like this, or has all the words, by what they are of. */
export async function ownWritten(db: Reader, text: string, words: string[]): Promise<Map<OwnKind, number[]>> {
  const found = new Map<OwnKind, number[]>()
  if (text.length < 3) return found
  const fields = await db
    .select({ id: ownFields.id, kind: ownFields.kind })
    .from(ownFields)
    .where(and(inArray(ownFields.shape, ['text', 'link']), isNull(ownFields.retiredAt)))
  const [inside, ...begun] = await Promise.all([
    withWords(db, words),
    ...fields.map((field) =>
      db
        .select({ fieldId: ownValues.fieldId, id: ownValues.recordId })
        .from(ownValues)
        .where(and(eq(ownValues.fieldId, field.id), like(ownValues.text, `${likeText(text)}%`)))
        .limit(MOST_FOUND),
    ),
  ])
  const kinds = new Map(fields.map(({ id, kind }) => [id, kind]))
  for (const { fieldId, id } of [...begun.flat(), ...inside]) {
    const kind = kinds.get(fieldId)
    if (kind) found.set(kind, [...new Set([...(found.get(kind) ?? []), id])])
  }
  return found
}

/** Values with all the words, each as a word begins; none where the index would take too long to say. */
async function withWords(db: Reader, words: string[]): Promise<{ fieldId: number; id: number }[]> {
  const indexed = indexedWords(words)
  if (!indexed.length) return []
  try {
    const [rows] = (await db.execute(sql`set statement max_statement_time = ${sql.raw(String(MOST_SECONDS))} for
      select ${ownValues.fieldId} as fieldId, ${ownValues.recordId} as id from ${ownValues}
      where match (${ownValues.text}) against (${indexed.map((word) => `+${word}*`).join(' ')} in boolean mode) limit ${MOST_FOUND}`)) as unknown as [
      { fieldId: number; id: number }[],
    ]
    return rows
  } catch (error) {
    if (!isOutOfTime(error)) throw error
    return []
  }
}
