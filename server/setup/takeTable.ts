import { and, eq, isNotNull, ne } from 'drizzle-orm'
import * as contract from '#contract/setup'
import type { TableReport } from '#contract/setup'
import { refuse } from '#core/kit'
import { TABLE_FIELDS } from '#core/setup'
import type { KnownRecords } from '#core/setup'
import { contentOf, inThread, mySite, preparedCommand } from '#server/kit'
import type { Outgoing, Tx } from '#server/kit'
import { takePeople } from '#server/people'
import { takePlaces } from '#server/places'
import { payers, people, places } from '../tables'
import type { TableJob, TableResult } from './readTable.worker'

const readTable = inThread<TableJob, TableResult>('readTable.worker')
const MOST_BAD = 200

export default preparedCommand(
  contract.takeTable,
  ({ request }) => (request.file ? contentOf(request.file) : Promise.resolve(Buffer.alloc(0))),
  async ({ tx, who, input, ready: content, tell }): Promise<Outgoing<TableReport>> => {
    const { what, siteId } = input
    const site = await mySite(tx, who, siteId)
    // Two tables for a site go one after the other. Its one topmost place is locked, not the site: every new request would wait for that.
    const [top] = await tx
      .select({ id: places.id })
      .from(places)
      .where(and(eq(places.siteId, siteId), eq(places.kind, 'site')))
    if (input.take && top) await tx.select({ id: places.id }).from(places).where(eq(places.id, top.id)).for('update')
    if (!content.length) refuse('file_missing', 'Choose a CSV file that is not empty.', 'file')
    const payerRows = await tx.select({ id: payers.id, code: payers.code }).from(payers)
    const placeRows = await tx.select().from(places).where(eq(places.siteId, siteId))
    const payerIds = new Map(payerRows.map((row) => [row.code.toLowerCase(), row.id]))
    const codeOfPayer = new Map(payerRows.map((row) => [row.id, row.code]))
    const known: KnownRecords = {
      records: what === 'places' ? knownPlaces(placeRows, codeOfPayer) : await knownPeople(tx, siteId, placeRows, codeOfPayer),
      placeKinds: Object.fromEntries(placeRows.map((row) => [row.code.toLowerCase(), row.kind])),
      payers: payerRows.map((row) => row.code),
      elsewhere: what === 'people' ? await mailsElsewhere(tx, siteId) : [],
    }
    const chosen = input.matching === undefined ? null : input.matching.split(',').map((code) => code || null)
    const read = await readTable({ what, content: new Uint8Array(content), matching: chosen, known })
    if (read.wrong !== null) refuse('table', read.wrong, 'file')
    const { table, headings, samples, matching, unread, rows } = read
    const take = !!input.take && !unread.length
    if (take) {
      if (what === 'places') await takePlaces(tx, site, [...table.fresh, ...table.changed], placeRows, payerIds)
      else await takePeople(tx, siteId, table, placeRows, payerIds)
      await tell({
        kind: 'setup.table',
        siteId,
        details: { what, file: input.name ?? '', fresh: table.fresh.length, changed: table.changed.length, bad: table.bad.length },
      })
    }
    return {
      columns: headings.map((heading, index) => ({ heading, sample: samples[index]!.slice(0, 80), field: matching[index]! })),
      fields: TABLE_FIELDS[what].map(({ code, name, required }) => ({ code, name, required })),
      unread,
      rows,
      fresh: table.fresh.length,
      changed: table.changed.length,
      same: table.same,
      bad: table.bad.slice(0, MOST_BAD),
      badCount: table.bad.length,
      taken: take,
    }
  },
  ({ db, who, input }) => mySite(db, who, input.siteId),
)

type PlaceRecord = typeof places.$inferSelect

function knownPlaces(rows: PlaceRecord[], codeOfPayer: Map<number, string>): KnownRecords['records'] {
  const codeOf = new Map(rows.map((row) => [row.id, row.code]))
  return Object.fromEntries(
    rows.map((row) => [
      row.code.toLowerCase(),
      {
        code: row.code,
        name: row.name,
        kind: row.kind,
        parent: row.parentId ? codeOf.get(row.parentId)! : '',
        access: row.access ?? '',
        payer: row.payerId ? codeOfPayer.get(row.payerId)! : '',
      },
    ]),
  )
}

async function knownPeople(tx: Tx, siteId: number, placeRows: PlaceRecord[], codeOfPayer: Map<number, string>): Promise<KnownRecords['records']> {
  const codeOf = new Map(placeRows.map((row) => [row.id, row.code]))
  const rows = await tx.select().from(people).where(eq(people.siteId, siteId))
  return Object.fromEntries(
    rows
      .filter((row) => row.email)
      .map((row) => [
        row.email!.toLowerCase(),
        {
          name: row.name,
          email: row.email!,
          phone: row.phone ?? '',
          extension: row.extension ?? '',
          title: row.title ?? '',
          place: row.placeId ? (codeOf.get(row.placeId) ?? '') : '',
          payer: row.payerId ? codeOfPayer.get(row.payerId)! : '',
        },
      ]),
  )
}

async function mailsElsewhere(tx: Tx, siteId: number): Promise<string[]> {
  const rows = await tx
    .select({ email: people.email })
    .from(people)
    .where(and(ne(people.siteId, siteId), isNotNull(people.email)))
  return rows.map((row) => row.email!.toLowerCase())
}
