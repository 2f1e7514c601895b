import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import * as contract from '#contract/ledger'
import { delivery } from '#server/kit'
import { readStatement } from './statement'

let drawers: Piscina | null = null

/** Pages are drawn in a worker thread, which ends when nobody has asked for a while. */
function pool(): Piscina {
  drawers ??= new Piscina({
    filename: path.join(path.dirname(fileURLToPath(import.meta.url)), 'statementPdf.worker.js'),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 10_000,
  })
  return drawers
}

export default delivery(contract.downloadStatementPdf, async ({ db, who, input, response }) => {
  const statement = await readStatement(db, who, input.payerId, input.month)
  const pdf = (await pool().run(JSON.parse(JSON.stringify(statement)))) as Uint8Array
  response.setHeader('Content-Type', 'application/pdf')
  response.setHeader('Content-Disposition', `attachment; filename="${statement.number}.pdf"`)
  response.end(Buffer.from(pdf))
})
