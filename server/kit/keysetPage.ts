import { and, asc, desc, eq, gt, isNotNull, isNull, lt, or } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import type { Page } from '#contract/kit'
import { decodeCursor, encodeCursor } from './keyset'
import type { CursorPart } from './keyset'

/** How rows run: the columns in order of weight, ending with one no two rows share. Text leads only where there is one part: the database alone knows its order. */
export interface Run<Row> {
  keys: { column: MySqlColumn; read: (row: Row) => Date | number | string | null; nullable?: boolean }[]
  down: boolean
}

export type Stretch = 'all' | 'filled' | 'empty'

interface Reading<Key extends { id: number }, Row extends { id: number }> {
  run: Run<Key>
  /** Parts whose rows are read each in index order and merged: one for each state, say. */
  parts: (SQL | undefined)[]
  after: string | undefined
  limit: number
  /** Reads what the order goes by, and nothing else: most of what several parts give is not shown. `empty` are those with nothing in the leading column. */
  readKeys: (where: SQL | undefined, order: SQL[], limit: number, stretch: Stretch) => Promise<Key[]>
  /** Reads the rows that are shown, in any order. */
  readRows: (ids: number[]) => Promise<Row[]>
}

/**
 * A page of a list and the cursor of the next. Rows with nothing in the leading column come last,
 * read on their own, so that the index of that column serves the rest.
 */
export async function keysetPage<Key extends { id: number }, Row extends { id: number }>({
  run,
  parts,
  after,
  limit,
  readKeys,
  readRows,
}: Reading<Key, Row>): Promise<Page<Row>> {
  const last = after ? placeIn(after, run.keys) : null
  const stretches: Stretch[] = run.keys[0]!.nullable ? ['filled', 'empty'] : ['all']
  const rows: { row: Key; stretch: Stretch }[] = []
  for (const stretch of stretches) {
    if (rows.length > limit) break
    if (last && last[0] === 'empty' && stretch === 'filled') continue
    const keys = stretch === 'empty' ? run.keys.slice(1) : run.keys
    const lead = run.keys[0]!.column
    const where = stretch === 'filled' ? isNotNull(lead) : stretch === 'empty' ? isNull(lead) : undefined
    const from = last && last[0] === stretch ? beyond(keys, last.slice(1 + run.keys.length - keys.length), run.down) : undefined
    const order = keys.map(({ column }) => (run.down ? desc(column) : asc(column)))
    const found = await Promise.all(parts.map((part) => readKeys(and(part, where, from), order, limit + 1 - rows.length, stretch)))
    const merged = found.length > 1 ? found.flat().sort(compareBy(keys, run.down)) : found[0]!
    rows.push(...merged.slice(0, limit + 1 - rows.length).map((row) => ({ row, stretch })))
  }
  const shown = rows.slice(0, limit)
  const end = shown.at(-1)
  const next = rows.length > limit && end ? encodeCursor([end.stretch, ...run.keys.map(({ read: key }) => toCursor(key(end.row)))]) : null
  const full = new Map((shown.length ? await readRows(shown.map(({ row }) => row.id)) : []).map((row) => [row.id, row]))
  return { rows: shown.flatMap(({ row }) => full.get(row.id) ?? []), next }
}

/** Where a page ended. Beyond the rows that have something in the leading column, nothing stands in its place. */
function placeIn<Row>(after: string, keys: Run<Row>['keys']): (string | number)[] {
  const kinds = keys.map(({ column }): CursorPart => {
    if (column.dataType === 'date') return 'instant'
    if (column.dataType === 'string') return 'text'
    return column.getSQLType().startsWith('decimal') ? 'number' : 'integer'
  })
  if (!keys[0]!.nullable) return decodeCursor(after, ['text', ...kinds])
  try {
    return decodeCursor(after, ['text', ...kinds])
  } catch {
    return decodeCursor(after, ['text', 'nothing', ...kinds.slice(1)])
  }
}

const toCursor = (value: Date | number | string | null) => (value instanceof Date ? value.toISOString() : (value ?? ''))

/** What lies beyond a row: further in the leading column, or equal there and further in the next. */
function beyond<Row>(keys: Run<Row>['keys'], values: (string | number)[], down: boolean): SQL | undefined {
  const past = down ? lt : gt
  const options = keys.map((key, index) =>
    and(
      ...keys.slice(0, index).map((earlier, at) => eq(earlier.column, fromCursor(earlier.column, values[at]!))),
      past(key.column, fromCursor(key.column, values[index]!)),
    ),
  )
  return or(...options)
}

const fromCursor = (column: MySqlColumn, value: string | number) => (column.dataType === 'date' ? new Date(value) : value)

function compareBy<Row>(keys: Run<Row>['keys'], down: boolean): (a: Row, b: Row) => number {
  return (a, b) => {
    for (const { read } of keys) {
      const [left, right] = [Number(read(a)), Number(read(b))]
      if (left !== right) return (left < right ? -1 : 1) * (down ? -1 : 1)
    }
    return 0
  }
}
