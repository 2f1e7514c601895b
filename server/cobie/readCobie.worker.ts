import { read as readWorkbook, utils } from '@e965/xlsx'
import { cleanText } from '#core/kit'
import { COBIE_SHEET_NAMES, readCobie } from '#core/cobie'
import type { CobieStanding, CobieTables, ReadCobie } from '#core/cobie'
import { openDatabase } from '#server/kit'
import { cobieKnown } from './gather'
import { filesOf, unpacked } from './unpack'

export interface ReadCobieJob {
  databaseUrl: string
  siteId: number
  content: Uint8Array
  keepUnknown: boolean
  /** The day it is at the site. */
  today: string
  /** Whether files that came along are given back: what is only looked at needs none. */
  take: boolean
}

export interface CobieFound extends ReadCobie {
  /** What came along and is to be kept, by where it lies. */
  files: Record<string, Uint8Array>
}

const MOST_ROWS = 400_000
const MOST_COLUMNS = 80
const MOST_CELL = 4_000
/** So many rows are shown: those that cannot be taken first. */
const MOST_SHOWN = 300
const ORDER: CobieStanding[] = ['bad', 'left', 'changed', 'new', 'same']

/** Reads a workbook row by row and holds it against what there is at the site. */
export default async function read({ databaseUrl, siteId, content, keepUnknown, today, take }: ReadCobieJob): Promise<CobieFound | { wrong: string }> {
  let tables: CobieTables
  const sent = unpacked(content)
  if ('wrong' in sent) return sent
  try {
    tables = tablesOf(sent.workbook)
  } catch (error) {
    if (error instanceof TooLarge) return { wrong: `The workbook has more than ${MOST_ROWS} rows. Take it in by floors.` }
    return { wrong: 'The file is no workbook (XLSX) that can be read. Save it anew from your spreadsheet, and choose that.' }
  }
  if (!Object.keys(tables).length) return { wrong: 'None of its sheets is called as COBie calls them: Facility, Floor, Space, Type, Component …' }
  const { db, pool } = openDatabase(databaseUrl, { connections: 2 })
  try {
    const found = readCobie(tables, await cobieKnown(db, siteId, today, sent.files), keepUnknown)
    if ('wrong' in found) return found
    const files = take ? filesOf(content, new Set(found.writes.documents.map((one) => one.path))) : {}
    return { ...found, files, rows: found.rows.sort((a, b) => ORDER.indexOf(a.standing) - ORDER.indexOf(b.standing)).slice(0, MOST_SHOWN) }
  } finally {
    await pool.end()
  }
}

class TooLarge extends Error {}

/** Sheets called as COBie calls them, however it is written; the others are not looked at. */
function tablesOf(content: Uint8Array): CobieTables {
  const options = { type: 'buffer', dense: true, cellDates: true, UTC: true, cellFormula: false, cellHTML: false, cellText: false, cellStyles: false } as const
  const { SheetNames: named } = readWorkbook(content, { type: 'buffer', bookSheets: true })
  const known = named.flatMap((name) => COBIE_SHEET_NAMES.filter((one) => one.toLowerCase() === name.trim().toLowerCase()).map((one) => [name, one] as const))
  const tables: CobieTables = {}
  let rows = 0
  // One sheet at a time: what was read of one is let go before the next.
  for (const [name, sheet] of known) {
    const { Sheets: read } = readWorkbook(content, { ...options, sheets: [name] })
    const table = utils.sheet_to_json<unknown[]>(read[name]!, { header: 1, raw: true, defval: '', blankrows: true, UTC: true })
    rows += table.length
    if (rows > MOST_ROWS) throw new TooLarge()
    tables[sheet] = table.map((cells) => cells.slice(0, MOST_COLUMNS).map(textOf))
  }
  return tables
}

/** What a cell holds, as text: a day as ISO 8601. */
function textOf(value: unknown): string {
  if (value === null || value === undefined) return ''
  if (value instanceof Date) return value.toISOString().replace(/T00:00:00\.000Z$/, '')
  return cleanText(String(value)).slice(0, MOST_CELL)
}
