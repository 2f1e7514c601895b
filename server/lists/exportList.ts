import { MessageChannel } from 'node:worker_threads'
import { sql } from 'drizzle-orm'
import * as contract from '#contract/lists'
import { refuse } from '#core/kit'
import { delivery, inThread, logger } from '#server/kit'
import type { ExportJob } from './exportList.worker'
import { rowsOf } from './sources'
import { askedOf } from './asked'
import { wallClock } from './cells'

const write = inThread<ExportJob, void>('exportList.worker', { mostHeapMb: 72 })
/** A sheet of a workbook holds no more, its headings among them. */
const MOST_IN_WORKBOOK = 1_048_575
const MIME = { csv: 'text/csv; charset=utf-8', xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' }

/** The whole list as a file, made in a thread and passed on as it comes. */
export default delivery(contract.exportList, async ({ db, who, input, now, service, response }) => {
  const { ask, from } = await askedOf({ db, who, now }, input.kind, input.ask)
  if (input.format === 'xlsx') {
    const [counted] = await db.select({ n: sql<string>`count(*)` }).from(rowsOf(db, ask, from, MOST_IN_WORKBOOK + 1))
    if (Number(counted!.n) > MOST_IN_WORKBOOK) refuse('too_many_rows', 'A workbook holds 1,048,575 rows; take CSV, or narrow the list.', 'format')
  }
  const { port1: near, port2: far } = new MessageChannel()
  const day = wallClock(now, from.zone).slice(0, 10)
  response.writeHead(200, {
    'Content-Type': MIME[input.format],
    'Content-Disposition': `attachment; filename="${input.kind}-${day}.${input.format}"`,
    'Cache-Control': 'no-store',
  })
  let gone = false
  /** Pieces taken off the thread that still wait for room on the line. */
  let owed = 0
  response.once('close', () => {
    gone = true
    near.postMessage('left')
  })
  const ended = new Promise<void>((resolve) => {
    near.on('message', (piece: Uint8Array | 'end') => {
      if (piece === 'end') return resolve()
      if (gone) return
      if (response.write(piece)) near.postMessage('taken')
      else owed++
    })
  })
  response.on('drain', () => {
    for (; owed > 0; owed--) near.postMessage('taken')
  })
  try {
    await write({ databaseUrl: service.config.databaseUrl, ask, from, format: input.format, port: far }, [far])
    await ended
    response.end()
  } catch (error) {
    // Half a file must not look like a whole one.
    logger.error({ error }, 'an export failed')
    response.destroy()
  } finally {
    near.close()
  }
})
