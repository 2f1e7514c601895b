import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import PDFDocument from 'pdfkit'
import type { Statement, StatementJob } from '#contract/ledger'
import { formatMinor } from '#core/kit'

const require = createRequire(import.meta.url)
const font = (name: string) => readFileSync(require.resolve(name))
const FONTS = {
  text: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff',
  strong: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff',
  mono: '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff',
}
const INK = '#17262B'
const SOFT = '#55656A'
const LINE = '#D9D2C3'
const LEFT = 50
const RIGHT = 545

/** Draws a statement on A4: one block a job, every line traceable. Answers the bytes. */
export default async function drawStatement(statement: Statement): Promise<Uint8Array> {
  const document = new PDFDocument({
    size: 'A4',
    margins: { top: 50, bottom: 60, left: LEFT, right: 50 },
    bufferPages: true,
    info: { Title: statement.number },
  })
  for (const [name, file] of Object.entries(FONTS)) document.registerFont(name, font(file))
  const chunks: Buffer[] = []
  document.on('data', (chunk: Buffer) => chunks.push(chunk))
  const ended = new Promise<void>((resolve) => document.on('end', resolve))
  drawHead(document, statement)
  for (const job of statement.jobList) drawJob(document, job)
  drawTotals(document, statement)
  numberPages(document, statement.number)
  document.end()
  await ended
  return Buffer.concat(chunks)
}

function drawHead(document: PDFKit.PDFDocument, statement: Statement): void {
  document.font('strong').fontSize(18).fillColor(INK).text(`Statement ${statement.number}`)
  document.font('text').fontSize(10).fillColor(SOFT).text(`${statement.site}, ${statement.month}`)
  document.moveDown(0.5).fillColor(INK).text(`${statement.payerCode} ${statement.payerName}`)
  document.fillColor(SOFT).text(`All amounts in ${statement.currency}.`).moveDown()
}

function drawJob(document: PDFKit.PDFDocument, job: StatementJob): void {
  if (document.y > 700) document.addPage()
  rule(document)
  row(document, 'strong', `${job.orderNumber}  ${job.reversal ? 'Reversal: ' : ''}${job.summary}`, formatMinor(job.netMinor))
  const share = job.shareBp < 10_000 ? `, your share ${job.shareBp / 100} %` : ''
  document
    .font('text')
    .fontSize(8.5)
    .fillColor(SOFT)
    .text(`${job.place ?? ''}, posted ${job.postedAt.slice(0, 10)}${share}`, LEFT)
  if (job.noteForPayer) document.fillColor(INK).text(job.noteForPayer, LEFT)
  for (const line of job.lines) {
    if (document.y > 760) document.addPage()
    const markup = line.markupBp ? ` + ${line.markupBp / 100} %` : ''
    row(document, 'text', `${line.description}: ${line.quantity} ${line.unit} × ${formatMinor(line.unitCostMinor)}${markup}`, formatMinor(line.netMinor), 12)
  }
  document.moveDown(0.4)
}

function drawTotals(document: PDFKit.PDFDocument, statement: Statement): void {
  if (document.y > 690) document.addPage()
  rule(document)
  row(document, 'text', 'Net', formatMinor(statement.netMinor))
  row(document, 'text', 'Tax', formatMinor(statement.taxMinor))
  row(document, 'strong', 'Total', formatMinor(statement.grossMinor))
}

function row(document: PDFKit.PDFDocument, face: 'text' | 'strong', left: string, right: string, indent = 0): void {
  document
    .font(face)
    .fontSize(face === 'strong' ? 10 : 9)
    .fillColor(INK)
  const top = document.y
  document.text(left, LEFT + indent, top, { width: RIGHT - LEFT - 100 - indent })
  const bottom = document.y
  document.font('mono').text(right, RIGHT - 90, top, { width: 90, align: 'right' })
  document.y = Math.max(bottom, document.y)
}

function rule(document: PDFKit.PDFDocument): void {
  document.moveTo(LEFT, document.y).lineTo(RIGHT, document.y).strokeColor(LINE).lineWidth(0.7).stroke()
  document.y += 6
}

function numberPages(document: PDFKit.PDFDocument, number: string): void {
  const { count } = document.bufferedPageRange()
  for (let page = 0; page < count; page++) {
    document.switchToPage(page)
    document.page.margins.bottom = 0
    document
      .font('text')
      .fontSize(8)
      .fillColor(SOFT)
      .text(`${number}, page ${page + 1} of ${count}`, LEFT, 800, { width: RIGHT - LEFT, align: 'right' })
  }
}
