export interface Measure {
  what: string
  measured: string
  limit: string
  kept: boolean
}

export function printTable(measures: Measure[]): void {
  const rows = [['what', 'measured', 'limit', ''], ...measures.map((one) => [one.what, one.measured, one.limit, one.kept ? 'kept' : 'NOT KEPT'])]
  const widths = [0, 1, 2, 3].map((column) => Math.max(...rows.map((row) => row[column]!.length)))
  for (const row of rows) console.log(`| ${row.map((cell, column) => cell.padEnd(widths[column]!)).join(' | ')} |`)
}

export function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)]!
}
