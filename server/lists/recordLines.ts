import { and, asc, inArray, isNotNull, isNull } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import type { Page } from '#contract/kit'
import type { RecordCell, RecordLine } from '#contract/lists'
import { askedField, REGISTER_COLUMNS, REGISTER_LIST_FIELDS } from '#core/lists'
import type { ListAsk, ListField } from '#core/lists'
import { REGISTERS } from '#core/registers'
import type { RegisterName } from '#core/registers'
import { keysetPage, withinSites } from '#server/kit'
import type { Outgoing, Reader } from '#server/kit'
import { RECORD_TABLES } from '#server/registers'
import { BESIDE, WORDS_IN } from './beside'
import { allConditions, byAmount, byDate, byDay, byFlag, byPlace, byText, byValue } from './conditions'
import type { Condition } from './conditions'
import { NAMES } from './names'
import { ownCells, ownColumn, ownCondition, ownKeys, ownLead } from './own'
import type { Standpoint } from './standpoint'

type AnyRow = { id: number; version: number; retiredAt: Date | null } & Record<string, RecordCell | Date>

/** The column a field of a list comes from, where it comes from one of the record. */
export function columnOf(register: RegisterName, field: ListField): MySqlColumn | undefined {
  const columns = RECORD_TABLES[register] as unknown as Record<string, MySqlColumn | undefined>
  return field.register === 'site' ? columns.siteId : columns[field.property ?? field.name]
}

function conditionOf(field: ListField, column: MySqlColumn): Condition {
  if (field.register === 'place') return byPlace(column)
  switch (field.shape) {
    case 'text':
      return byText(column)
    case 'day':
      return byDay(column)
    case 'date':
      return byDate(column)
    case 'money':
    case 'count':
    case 'percent':
      return byAmount(column)
    default:
      return byValue(column)
  }
}

function conditionsOf(register: RegisterName): Record<string, Condition> {
  const { retiredAt } = RECORD_TABLES[register]
  const own = REGISTER_LIST_FIELDS[register].flatMap((field) => {
    const column = columnOf(register, field)
    return column ? [[field.name, conditionOf(field, column)] as const] : []
  })
  return { ...Object.fromEntries(own), ...BESIDE[register].conditions, words: WORDS_IN[register], retired: byFlag(() => isNotNull(retiredAt)) }
}
const CONDITIONS = Object.fromEntries(REGISTERS.map((register) => [register, conditionsOf(register)])) as Record<RegisterName, Record<string, Condition>>

/** What a list of a register asks of its records; those that are retired are there only when they are asked for. */
export function recordConditions(register: RegisterName, ask: Pick<ListAsk, 'clauses' | 'fields'>, from: Standpoint): SQL | undefined {
  const { id, retiredAt, siteId } = RECORD_TABLES[register]
  return and(
    allConditions(CONDITIONS[register], ask.clauses, from, (clause) => ownCondition(askedField(ask, clause.field), id, clause, from)),
    ask.clauses.some((clause) => clause.field === 'retired') ? undefined : isNull(retiredAt),
    siteId ? withinSites(from, siteId) : undefined,
  )
}

export async function recordLines(
  db: Reader,
  register: RegisterName,
  ask: ListAsk,
  from: Standpoint,
  { after, limit }: { after?: string; limit: number },
): Promise<Page<Outgoing<RecordLine>>> {
  const table = RECORD_TABLES[register]
  const sorted = askedField(ask, ask.sort.field)
  const lead = sorted.own ? ownColumn(sorted, ownLead) : columnOf(register, sorted)!
  const where = recordConditions(register, ask, from)
  type Key = { id: number; lead: string | number | null }
  return keysetPage<Key, Outgoing<RecordLine>>({
    run: {
      keys: [
        { column: lead, read: (row) => row.lead, nullable: sorted.empties },
        { column: table.id, read: (row) => row.id },
      ],
      down: ask.sort.down,
    },
    parts: [undefined],
    after,
    limit,
    readKeys: (part, order, most, stretch) =>
      (sorted.own
        ? ownKeys(db, table, sorted, { where: and(part, where), all: where, order, most, stretch }).then((rows) =>
            rows.map(({ id, own }) => ({ id, lead: own })),
          )
        : db
            .select({ id: table.id, lead })
            .from(table)
            .where(and(part, where))
            .orderBy(...order)
            .limit(most)) as Promise<Key[]>,
    readRows: (ids) => readRows(db, register, ask, from, ids),
  })
}

async function readRows(db: Reader, register: RegisterName, ask: ListAsk, from: Standpoint, ids: number[]): Promise<Outgoing<RecordLine>[]> {
  const table = RECORD_TABLES[register]
  const rows = (await db.select().from(table).where(inArray(table.id, ids)).orderBy(asc(table.id))) as AnyRow[]
  const columns = ask.columns.map((name) => askedField(ask, name))
  const [own, ...read] = await Promise.all([
    ownCells(db, columns, ids),
    ...columns.filter((field) => !field.own).map(async (field) => [field.name, await cellsOf(db, register, field, rows, from)] as const),
  ])
  const [called] = REGISTER_COLUMNS[register]
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    number: String(row[called!] ?? ''),
    heading: String(row.name ?? ''),
    retired: row.retiredAt !== null,
    cells: { ...Object.fromEntries(read.map(([name, cells]) => [name, cells.get(row.id) ?? null])), ...own.get(row.id) },
  }))
}

/** What stands in one column, by record. */
async function cellsOf(db: Reader, register: RegisterName, field: ListField, rows: AnyRow[], from: Standpoint): Promise<Map<number, RecordCell>> {
  if (field.name === 'retired') return new Map(rows.map((row) => [row.id, row.retiredAt !== null]))
  const beside = BESIDE[register].cells?.[field.name]
  if (beside) return beside(db, rows as never, from)
  const property = field.register === 'site' ? 'siteId' : (field.property ?? field.name)
  const value = (row: AnyRow) => row[property] as RecordCell
  if (!field.register) return new Map(rows.map((row) => [row.id, value(row) ?? null]))
  const named = [...new Set(rows.map(value).filter((id) => typeof id === 'number'))]
  const names = new Map((named.length ? await NAMES[field.register](db, named, from) : []).map((one) => [one.id, one.name]))
  return new Map(rows.map((row) => [row.id, names.get(value(row) as number) ?? null]))
}
