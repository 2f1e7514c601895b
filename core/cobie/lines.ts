import { cobieColumns } from './sheets'
import type { CobieSheet, CobieTables } from './sheets'

/** How the columns of a sheet lie: where each of the standard is, and which others hold a fact of the thing. */
interface Heading {
  at: Map<string, number>
  beyond: [string, number][]
}

/** A row as it is read; all rows of a sheet share its heading. */
export class Line {
  constructor(
    /** Of its sheet, from 1; the heading is line 1. */
    readonly line: number,
    private readonly cells: readonly string[],
    private readonly heading: Heading,
  ) {}
  cell(column: string): string {
    const at = this.heading.at.get(column)
    return at === undefined ? '' : saidIn(this.cells[at] ?? '')
  }
  /** What stands in columns that we do not read, by their headings. */
  get beyond(): [string, string][] {
    return this.heading.beyond.flatMap(([label, at]): [string, string][] => {
      const said = saidIn(this.cells[at] ?? '')
      return said ? [[label, said]] : []
    })
  }
  get isEmpty(): boolean {
    return !this.cells.some((cell) => saidIn(cell))
  }
}

/** Columns of the standard whose values are a fact of the thing, which we have no field for. */
const KEPT_AS_OWN: Partial<Record<CobieSheet, RegExp>> = {
  Space: /^(UsableHeight|GrossArea)$/,
  Type: /^(NominalLength|NominalWidth|NominalHeight|ModelReference|Shape|Size|Color|Finish|Grade|Material|Constituents|Features|AccessibilityPerformance|CodePerformance|SustainabilityPerformance)$/,
}

export const folded = (text: string): string => text.toLowerCase()
export const same = (a: string, b: string): boolean => folded(a) === folded(b)
/** What stands in a cell with commas between. */
export const listed = (cell: string): string[] =>
  cell
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)

/** The rows of a sheet that say anything. */
export function linesOf(tables: CobieTables, sheet: CobieSheet): Line[] {
  const [top, ...rows] = tables[sheet] ?? []
  if (!top) return []
  const standard = new Map(cobieColumns(sheet).map((column) => [column.toLowerCase(), column]))
  const kept = KEPT_AS_OWN[sheet]
  const heading: Heading = { at: new Map(), beyond: [] }
  top.forEach((label, at) => {
    const column = standard.get(label.replace(/\s+/g, '').toLowerCase())
    if (column && !heading.at.has(column)) heading.at.set(column, at)
    if (column ? kept?.test(column) : label.trim()) heading.beyond.push([(column ?? label).trim().slice(0, 60), at])
  })
  return rows.map((cells, index) => new Line(index + 2, cells, heading)).filter((line) => !line.isEmpty)
}

/** What a cell says; nothing where it is empty or says so. What was made safe for spreadsheets is as it was. */
const saidIn = (cell: string): string => {
  const said = cell.trim().replace(/^'(?=[=+\-@])/, '')
  return /^(n\/?a|none|1900-12-31(T.*)?)$/i.test(said) ? '' : said
}
