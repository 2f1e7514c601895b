import { once } from 'node:events'
import { Writable } from 'node:stream'
import { finished } from 'node:stream/promises'
import type { MessagePort } from 'node:worker_threads'
import { stringify } from 'csv-stringify'
import type { ExportFormat } from '#contract/lists'
import { askedField, LIST_NAMES, safeCell } from '#core/lists'
import type { FieldShape, ListAsk } from '#core/lists'
import { openDatabase } from '#server/kit'
import type { Db } from '#server/kit'
import { cellOf, wallClock, wallDate } from './cells'
import type { Cell } from './cells'
import { linesOf } from './sources'
import type { AnyLine } from './sources'
import type { Standpoint } from './standpoint'

export interface ExportJob {
  databaseUrl: string
  ask: ListAsk
  from: Standpoint
  format: ExportFormat
  /** Takes the file piece by piece; a message back lets another piece come. */
  port: MessagePort
}

const PAGE = 500
/** Pieces on their way before the thread waits for one to arrive. */
const AHEAD = 4

/** Writes every row of a list into a file, page by page, no faster than it is taken. */
export default async function exportList({ databaseUrl, ask, from, format, port }: ExportJob): Promise<void> {
  const { db, pool } = openDatabase(databaseUrl, { connections: 2 })
  const sink = new PortSink(port)
  try {
    const rows = pages(db, ask, from, sink)
    await (format === 'csv' ? writeCsv(ask, from, rows, sink) : writeWorkbook(ask, from, rows, sink))
    // Said rather than left to the closing of the port, which an idle thread does not get round to.
    port.postMessage('end')
  } finally {
    port.close()
    await pool.end()
  }
}

async function* pages(db: Db, ask: ListAsk, from: Standpoint, sink: PortSink): AsyncGenerator<AnyLine[]> {
  for (let after: string | undefined; ;) {
    const page = await linesOf(db, ask, from, { after, limit: PAGE })
    yield page.rows
    if (!page.next || sink.left) return
    after = page.next
  }
}

const headings = (ask: ListAsk) => ask.columns.map((name) => askedField(ask, name).label)

async function writeCsv(ask: ListAsk, from: Standpoint, rows: AsyncIterable<AnyLine[]>, sink: PortSink): Promise<void> {
  const csv = stringify({ bom: true, record_delimiter: '\r\n', header: true, columns: headings(ask) })
  csv.pipe(sink)
  const fields = ask.columns.map((name) => askedField(ask, name))
  const written = (cell: Cell, shape: FieldShape) =>
    cell instanceof Date ? wallClock(cell, from.zone) : typeof cell === 'number' ? (shape === 'money' ? cell.toFixed(2) : String(cell)) : safeCell(cell ?? '')
  for await (const page of rows)
    for (const line of page) if (!csv.write(fields.map((field) => written(cellOf(line, field, from.now), field.shape)))) await once(csv, 'drain')
  csv.end()
  await finished(sink)
}

/** How a workbook writes what is not text. */
const FORMATS: Partial<Record<FieldShape, string>> = { money: '#,##0.00', percent: '0.00', day: 'yyyy-mm-dd hh:mm', date: 'yyyy-mm-dd' }

async function writeWorkbook(ask: ListAsk, from: Standpoint, rows: AsyncIterable<AnyLine[]>, sink: PortSink): Promise<void> {
  // Loaded by who asks for a workbook alone.
  const { default: ExcelJS } = await import('exceljs')
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: sink, useStyles: true, useSharedStrings: false })
  const sheet = book.addWorksheet(LIST_NAMES[ask.kind], { views: [{ state: 'frozen', ySplit: 1 }] })
  const fields = ask.columns.map((name) => askedField(ask, name))
  sheet.columns = fields.map(({ name, label, shape }) => {
    const numFmt = FORMATS[shape]
    return { header: label, key: name, width: name === 'summary' ? 48 : 20, style: numFmt ? { numFmt } : {} }
  })
  sheet.getRow(1).font = { bold: true }
  sheet.getRow(1).commit()
  // Text in a workbook is text; it is made safe all the same, for when it is saved as CSV from there.
  const kept = (cell: Cell) => (cell instanceof Date ? wallDate(cell, from.zone) : typeof cell === 'string' ? safeCell(cell) : cell)
  for await (const page of rows) {
    for (const line of page) sheet.addRow(fields.map((field) => kept(cellOf(line, field, from.now)))).commit()
    await sink.taken()
  }
  sheet.commit()
  await book.commit()
  await finished(sink)
}

/** Hands pieces over to the thread that answers, and waits when it has not taken the last ones. */
class PortSink extends Writable {
  /** The one who asked has gone: nothing more is needed. */
  left = false
  private ahead = 0
  private waiting: (() => void)[] = []

  constructor(private readonly port: MessagePort) {
    super({ highWaterMark: 64 * 1024 })
    port.on('message', (message: 'taken' | 'left') => {
      if (message === 'left') this.left = true
      this.ahead = message === 'left' ? 0 : this.ahead - 1
      if (this.ahead < AHEAD) this.waiting.splice(0).forEach((go) => go())
    })
  }

  override _write(piece: Buffer, _encoding: string, done: () => void): void {
    if (this.left) return done()
    const bytes = new Uint8Array(piece)
    this.port.postMessage(bytes, [bytes.buffer])
    this.ahead++
    if (this.ahead < AHEAD) done()
    else this.waiting.push(done)
  }

  /** Resolves once what was written has been taken, but for the last pieces. */
  async taken(): Promise<void> {
    while (!this.left && this.writableLength > this.writableHighWaterMark) await new Promise<void>((go) => this.waiting.push(go))
  }
}
