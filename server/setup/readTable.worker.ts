import { parse } from 'csv-parse/sync'
import { cleanText } from '#core/kit'
import { ownName } from '#core/own'
import type { OwnField } from '#core/own'
import { matchColumns, matchingReasons, sortRows, tableFields } from '#core/setup'
import type { CellTerms, KnownRecords, Matching, ReadTable, TableKind, TableRow } from '#core/setup'
import { openDatabase } from '#server/kit'
import { namesKnown, recordsKnown } from './knownRecords'

export interface TableJob {
  databaseUrl: string
  what: TableKind
  siteId: number
  content: Uint8Array
  /** Chosen by the person; null to go by the headings. */
  matching: Matching | null
  /** What people and places are held against; of the other registers it is read for the keys of the table. */
  known: KnownRecords | null
  own: OwnField[]
  /** Fields that are not theirs who bring the table. */
  without: string[]
  terms: CellTerms
}

export type TableResult =
  | { wrong: string }
  | { wrong: null; headings: string[]; samples: string[]; matching: Matching; unread: string[]; rows: number; table: ReadTable; ids: Record<string, number> }

const MOST_ROWS = { byHand: 25_000, register: 10_000 }
const MOST_COLUMNS = 60

/** Reads a table by RFC 4180, also with semicolons or tabs, and sorts its rows. */
export default async function readTable(job: TableJob): Promise<TableResult> {
  const { what, siteId, content, matching: chosen, own, without, terms } = job
  const text = textOf(content)
  if (!text.trim()) return { wrong: 'The file is empty. Choose one with a heading line and rows.' }
  const most = job.known ? MOST_ROWS.byHand : MOST_ROWS.register
  let records: { record: string[]; info: { lines: number } }[]
  try {
    records = parse(text, {
      delimiter: delimiterOf(text),
      bom: true,
      relax_column_count: true,
      skip_empty_lines: true,
      info: true,
      to: most + 2,
    }) as unknown as typeof records
  } catch (error) {
    const line = (error as { lines?: number }).lines
    return { wrong: `The file is no CSV as RFC 4180 has it${line ? `: look at line ${line}` : ''}. A quote is perhaps not closed, or stands inside a cell.` }
  }
  if (records.length > most + 1) return { wrong: `The file has more than ${most} rows. Cut it into several.` }
  const headings = records[0]!.record.map((cell) => cell.trim())
  if (headings.length > MOST_COLUMNS) return { wrong: `The file has more than ${MOST_COLUMNS} columns.` }
  const all = tableFields(what, own, without)
  const guessed = matchColumns(all, headings)
  const matching = headings.map((_, index) => (chosen ? (all.find((one) => one.code === chosen[index])?.code ?? null) : guessed[index]!))
  const unread = matchingReasons(all, matching)
  const rows = records.slice(1).map(({ record, info }): TableRow => {
    // The parser counts the lines read so far; a cell with line ends spans several.
    const spanned = record.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0)
    const cells = record.map(plainCell)
    return { line: info.lines - spanned, cells, fields: fieldsOf(cells, matching) }
  })
  const samples = headings.map((_, index) => rows.find((row) => row.cells[index])?.cells[index] ?? '')
  const head = { wrong: null, headings, samples, matching, unread, rows: rows.length }
  if (unread.length) return { ...head, table: { fresh: [], changed: [], same: 0, bad: [] }, ids: {} }
  const fields = all.filter(({ code, cell }) => !cell || cell.of === 'record' || matching.includes(code))
  const { db, pool } = openDatabase(job.databaseUrl, { connections: 1 })
  try {
    const known = job.known
      ? { ...job.known, names: await namesKnown(db, siteId, fields, rows) }
      : await recordsKnown(db, { kind: what, siteId, fields, own: own.filter(({ id }) => matching.includes(ownName(id))), rows })
    return { ...head, table: sortRows({ kind: what, fields, known, terms }, rows), ids: known.ids }
  } finally {
    await pool.end()
  }
}

/** A cell as it was meant: a sign that keeps a spreadsheet from computing it is not part of it. */
const plainCell = (cell: string): string =>
  cleanText(cell)
    .trim()
    .replace(/^'(?=[=+\-@])/, '')

const fieldsOf = (cells: string[], matching: Matching) => Object.fromEntries(matching.flatMap((code, index) => (code ? [[code, cells[index] ?? '']] : [])))

/** UTF-8, UTF-16 with or without its mark, or what office programs still write when it is neither (windows-1252). */
function textOf(content: Uint8Array): string {
  const wide = widthOf(content)
  if (wide) return new TextDecoder(wide).decode(content)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(content)
  } catch {
    return new TextDecoder('windows-1252').decode(content)
  }
}

/** Of comma, semicolon and tab the one that is commonest in the heading line. */
function delimiterOf(text: string): string {
  const heading = text
    .slice(0, 4000)
    .split(/\r?\n/)[0]!
    .replace(/"[^"]*"/g, '')
  const count = (mark: string) => heading.split(mark).length
  return [',', ';', '\t'].reduce((best, mark) => (count(mark) > count(best) ? mark : best))
}

/** Which half of each pair is nought, where every other byte is: text of two bytes a sign. */
function widthOf(content: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (content[0] === 0xff && content[1] === 0xfe) return 'utf-16le'
  if (content[0] === 0xfe && content[1] === 0xff) return 'utf-16be'
  const start = content.subarray(0, 2_000)
  const noughts = [0, 1].map((half) => start.filter((byte, index) => index % 2 === half && byte === 0).length)
  if (Math.max(...noughts) < start.length / 8) return null
  return noughts[1]! > noughts[0]! ? 'utf-16le' : 'utf-16be'
}
