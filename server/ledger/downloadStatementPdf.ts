import * as contract from '#contract/ledger'
import { delivery, inThread } from '#server/kit'
import { readStatement } from './statement'

const drawStatement = inThread<unknown, Uint8Array>('statementPdf.worker')

export default delivery(contract.downloadStatementPdf, async ({ db, who, input, response }) => {
  const statement = await readStatement(db, who, input.payerId, input.month)
  const pdf = await drawStatement(JSON.parse(JSON.stringify(statement)))
  response.setHeader('Content-Type', 'application/pdf')
  response.setHeader('Content-Disposition', `attachment; filename="${statement.number}.pdf"`)
  response.end(Buffer.from(pdf))
})
