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

/** Ours beside the plain statement through the driver: at most 2.5 times as long, or 5 ms longer. */
export function beside(what: string, ours: number[], theirs: number[]): Measure {
  const [a, b] = [median(ours), median(theirs)]
  return {
    what,
    measured: `${a.toFixed(1)} ms, ${(a / b).toFixed(2)} x (driver ${b.toFixed(1)} ms)`,
    limit: 'at most 2.5 x, or 5 ms above',
    kept: a <= 2.5 * b || a <= b + 5,
  }
}

export function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)]!
}
