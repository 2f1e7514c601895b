import type { Statement, StatementJob } from '#contract/ledger'
import { formatMinor } from '#core/kit'
import { drawPaper, INK, LEFT, row, rule, SOFT } from '#server/paper'
import type { Paper } from '#server/paper'

/** Draws a statement on A4: one block a job, every line traceable. Answers the bytes. */
export default (statement: Statement): Promise<Uint8Array> =>
  drawPaper(statement.number, (document) => {
    drawHead(document, statement)
    for (const job of statement.jobList) drawJob(document, job)
    drawTotals(document, statement)
  })

function drawHead(document: Paper, statement: Statement): void {
  document.font('strong').fontSize(18).fillColor(INK).text(`Statement ${statement.number}`)
  document.font('text').fontSize(10).fillColor(SOFT).text(`${statement.site}, ${statement.month}`)
  document.moveDown(0.5).fillColor(INK).text(`${statement.payerCode} ${statement.payerName}`)
  document.fillColor(SOFT).text(`All amounts in ${statement.currency}.`).moveDown()
}

function drawJob(document: Paper, job: StatementJob): void {
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

function drawTotals(document: Paper, statement: Statement): void {
  if (document.y > 690) document.addPage()
  rule(document)
  row(document, 'text', 'Net', formatMinor(statement.netMinor))
  row(document, 'text', 'Tax', formatMinor(statement.taxMinor))
  row(document, 'strong', 'Total', formatMinor(statement.grossMinor))
}
