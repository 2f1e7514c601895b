import { parse } from 'csv-parse/sync'
import { matchColumns, matchingReasons, sortRows, TABLE_FIELDS } from '#core/setup'
import type { KnownRecords, Matching, ReadTable, TableKind, TableRow } from '#core/setup'

export interface TableJob {
  what: TableKind
  content: Uint8Array
  /** Chosen by the person; null to go by the headings. */
  matching: Matching | null
  known: KnownRecords
}

export type TableResult =
  { wrong: string } | { wrong: null; headings: string[]; samples: string[]; matching: Matching; unread: string[]; rows: number; table: ReadTable }

const MOST_ROWS = 25_000
const MOST_COLUMNS = 60

/** Reads a table by RFC 4180, also with semicolons or tabs, and sorts its rows. */
export default function readTable({ what, content, matching: chosen, known }: TableJob): TableResult {
  const text = textOf(content)
  if (!text.trim()) return { wrong: 'The file is empty. Choose one with a heading line and rows.' }
  let records: { record: string[]; info: { lines: number } }[]
  try {
    records = parse(text, {
      delimiter: delimiterOf(text),
      bom: true,
      relax_column_count: true,
      skip_empty_lines: true,
      info: true,
      to: MOST_ROWS + 2,
    }) as unknown as typeof records
  } catch (error) {
    const line = (error as { lines?: number }).lines
    return { wrong: `The file is no CSV as RFC 4180 has it${line ? `: look at line ${line}` : ''}. A quote is perhaps not closed, or stands inside a cell.` }
  }
  if (records.length > MOST_ROWS + 1) return { wrong: `The file has more than ${MOST_ROWS} rows. Cut it into several.` }
  const headings = records[0]!.record.map((cell) => cell.trim())
  if (headings.length > MOST_COLUMNS) return { wrong: `The file has more than ${MOST_COLUMNS} columns.` }
  const guessed = matchColumns(what, headings)
  const matching = headings.map((_, index) => (chosen ? knownField(what, chosen[index]) : guessed[index]!))
  const unread = matchingReasons(what, matching)
  const rows = records.slice(1).map(({ record, info }): TableRow => {
    // The parser counts the lines read so far; a cell with line ends spans several.
    const spanned = record.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0)
    const cells = record.map((cell) => cell.trim())
    return { line: info.lines - spanned, cells, fields: fieldsOf(cells, matching) }
  })
  const samples = headings.map((_, index) => rows.find((row) => row.cells[index])?.cells[index] ?? '')
  const table = unread.length ? { fresh: [], changed: [], same: 0, bad: [] } : sortRows(what, rows, known)
  return { wrong: null, headings, samples, matching, unread, rows: rows.length, table }
}

const knownField = (what: TableKind, code: string | null | undefined) => TABLE_FIELDS[what].find((one) => one.code === code)?.code ?? null

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
