import { stringify } from 'csv-stringify'
import * as contract from '#contract/ledger'
import type { Statement } from '#contract/ledger'
import { delivery } from '#server/kit'
import { readStatement } from './statement'

const decimal = (amount: number) => (amount / 100).toFixed(2)

/** A cell that a spreadsheet would run as a formula is made plain text. Numbers stay numbers. */
const safe = (text: string) => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text)

export default delivery(contract.downloadStatementCsv, async ({ db, who, input, response }) => {
  const statement = JSON.parse(JSON.stringify(await readStatement(db, who, input.payerId, input.month))) as Statement
  response.setHeader('Content-Type', 'text/csv; charset=utf-8; header=present')
  response.setHeader('Content-Disposition', `attachment; filename="${statement.number}.csv"`)
  const rows = stringify({
    header: true,
    record_delimiter: 'windows',
    columns: [
      'statement',
      'order',
      'summary',
      'place',
      'posted',
      'kind',
      'line',
      'quantity',
      'unit',
      'unit cost',
      'cost',
      'share %',
      'markup %',
      'net',
      'tax %',
      'currency',
    ],
  })
  rows.pipe(response)
  for (const job of statement.jobList)
    for (const line of job.lines)
      rows.write([
        statement.number,
        job.orderNumber,
        safe(job.summary),
        safe(job.place ?? ''),
        job.postedAt,
        `${line.kind}${job.reversal ? ' (reversal)' : ''}`,
        safe(line.description),
        line.quantity,
        line.unit,
        decimal(line.unitCostMinor),
        decimal(line.costMinor),
        job.shareBp / 100,
        line.markupBp / 100,
        decimal(line.netMinor),
        job.taxBp / 100,
        statement.currency,
      ])
  rows.end()
})
