import { writeCobie } from '#core/cobie'
import { safeCell } from '#core/lists'
import { openDatabase } from '#server/kit'
import { cobieBuilding } from './gather'

export interface WriteCobieJob {
  databaseUrl: string
  buildingId: number
  by: { email: string }
  /** UTC, as "2026-11-26T10:30:00". */
  now: string
}

/** A building as a workbook. */
export default async function write({ databaseUrl, buildingId, by, now }: WriteCobieJob): Promise<Uint8Array> {
  const { db, pool } = openDatabase(databaseUrl, { connections: 2 })
  try {
    const tables = writeCobie(await cobieBuilding(db, buildingId), by, now)
    const { default: ExcelJS } = await import('exceljs')
    const book = new ExcelJS.Workbook()
    book.creator = 'Evrix'
    for (const [name, rows] of Object.entries(tables)) {
      const sheet = book.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] })
      // Text in a workbook is text; it is made safe all the same, for when it is saved as CSV from there.
      for (const row of rows) sheet.addRow(row.map((cell) => safeCell(cell)))
      sheet.getRow(1).font = { bold: true }
      sheet.columns.forEach((column) => (column.width = 18))
    }
    return new Uint8Array(await book.xlsx.writeBuffer())
  } finally {
    await pool.end()
  }
}
