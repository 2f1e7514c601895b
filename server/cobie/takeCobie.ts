import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/cobie'
import type { CobieReport } from '#contract/cobie'
import type { CobieStanding } from '#core/cobie'
import { refuse } from '#core/kit'
import { todayAt } from '#server/documents'
import { can, contentOf, inThread, mustReachAll, mySite, notAllowed, preparedCommand } from '#server/kit'
import { places } from '../tables'
import type { CobieFound, ReadCobieJob } from './readCobie.worker'
import { writeDocuments } from './writeDocuments'
import { writePlans } from './writePlans'
import { writeRecords } from './writeRecords'

/** Gone, with all it heaped up, before what it read is written. */
const read = inThread<ReadCobieJob, CobieFound | { wrong: string }>('readCobie.worker', { mostHeapMb: 160, idleMs: 0 })

/** Looking and taking are the same call: what is taken is what would be shown at that moment. */
export default preparedCommand(
  contract.takeCobie,
  ({ request }) => (request.file ? contentOf(request.file) : Promise.resolve(Buffer.alloc(0))),
  async ({ tx, who, input, now, tell, ready: content, service }): Promise<CobieReport> => {
    const { siteId, take, own = false } = input
    await mySite(tx, who, siteId)
    if (own) {
      // Fields of one's own are made for every site.
      if (!can(who, 'setup.edit')) throw notAllowed()
      mustReachAll(who)
    }
    // Two workbooks or tables for a site go one after the other.
    if (take)
      await tx
        .select({ id: places.id })
        .from(places)
        .where(and(eq(places.siteId, siteId), eq(places.kind, 'site')))
        .for('update')
    if (!content.length) refuse('file_missing', 'Choose a workbook that is not empty.', 'file')
    const today = await todayAt(tx, siteId, now)
    const job = { databaseUrl: service.config.databaseUrl, siteId, content: new Uint8Array(content), keepUnknown: own, today, take: !!take }
    const found = await read(job).catch(() => ({ wrong: 'The workbook takes more memory than there is for it. Take it in by floors, or its files in parts.' }))
    if ('wrong' in found) refuse('workbook', found.wrong, 'file')
    const { rows, counts, unknown, writes, files } = found
    if (take) {
      const taking = { tx, who, now, tell }
      const ids = await writeRecords(taking, siteId, writes)
      await writePlans(taking, siteId, today, writes.jobs, ids.assets)
      await writeDocuments(taking, siteId, writes.documents, ids, files)
      const all = Object.values(counts)
      const sum = (standing: CobieStanding) => all.reduce((total, one) => total + one[standing], 0)
      await tell({ kind: 'cobie.take', siteId, details: { file: input.name ?? '', fresh: sum('new'), changed: sum('changed'), bad: sum('bad') } })
    }
    return { rows, counts, unknown, taken: !!take }
  },
  ({ db, who, input }) => mySite(db, who, input.siteId),
)
