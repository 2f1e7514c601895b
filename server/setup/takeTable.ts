import { and, eq, isNotNull, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { KINDS } from '#contract/portraits'
import * as contract from '#contract/setup'
import type { TableReport } from '#contract/setup'
import { decimalSignOf, isMonthFirst, refuse } from '#core/kit'
import type { Permission } from '#core/people'
import { NOTHING_KNOWN, ownKindOf, tableFields } from '#core/setup'
import type { KnownRecords, ReadTable, TableKind } from '#core/setup'
import { can, canAt, contentOf, inThread, mySite, notAllowed, preparedCommand } from '#server/kit'
import type { Asker, Outgoing, Tx } from '#server/kit'
import { rulesOf } from '#server/orders'
import { ownFieldsOf } from '#server/own'
import { takePeople } from '#server/people'
import { takePlaces } from '#server/places'
import { fieldsFor } from '#server/registers'
import { payers, people, places } from '../tables'
import { addOwn } from './knownRecords'
import type { TableJob, TableResult } from './readTable.worker'
import { idsOf, takeOwn, takeRecords } from './takeRecords'
import type { Taken, Taking } from './takeRecords'

const readTable = inThread<TableJob, TableResult>('readTable.worker')
const MOST_BAD = 200
/** Up to so many rows are tried out before they are taken, so that what the register would refuse is said beforehand. */
const MOST_TRIED = 500

/** People and places are read by rules of their own, and many at once. */
type ByHand = 'people' | 'places'
const isByHand = (what: TableKind): what is ByHand => what === 'people' || what === 'places'

export default preparedCommand(
  contract.takeTable,
  ({ request }) => (request.file ? contentOf(request.file) : Promise.resolve(Buffer.alloc(0))),
  async (context): Promise<Outgoing<TableReport>> => {
    const { tx, who, input, ready: content, tell, now, service } = context
    const { what, siteId } = input
    const site = await mySite(tx, who, siteId)
    mustKeep(who, what, siteId)
    // Two tables for a site go one after the other. Its one topmost place is locked, not the site: every new request would wait for that.
    const [top] = await tx
      .select({ id: places.id })
      .from(places)
      .where(and(eq(places.siteId, siteId), eq(places.kind, 'site')))
    if (input.take && top) await tx.select({ id: places.id }).from(places).where(eq(places.id, top.id)).for('update')
    if (!content.length) refuse('file_missing', 'Choose a CSV file that is not empty.', 'file')
    const ownKind = ownKindOf(what)
    const own = ownKind ? await ownFieldsOf(tx, ownKind) : []
    const mine = fieldsFor(KINDS[what].fields, (permission) => can(who, permission))
    const without = Object.keys(KINDS[what].fields).filter((name) => !mine.includes(name))
    const around = isByHand(what) ? await aroundByHand(tx, siteId, what) : null
    if (around) await addOwn(tx, around.known, own)
    const { locale } = (await rulesOf(tx, siteId)).writing
    const read = await readTable({
      databaseUrl: service.config.databaseUrl,
      what,
      siteId,
      content: new Uint8Array(content),
      matching: input.matching === undefined ? null : input.matching.split(',').map((code) => code || null),
      known: around?.known ?? null,
      own,
      without,
      terms: {
        sign: decimalSignOf(locale),
        currency: site.currency,
        monthFirst: isMonthFirst(locale),
        today: DateTime.fromJSDate(now, { zone: site.zone }).toISODate()!,
      },
    })
    if (read.wrong !== null) refuse('table', read.wrong, 'file')
    const { headings, samples, matching, unread, rows } = read
    const take = !!input.take && !unread.length
    const writes = async (taking: Taking): Promise<Taken> => {
      const taken =
        isByHand(what) && around ? await takeByHand(taking, what, site, read.table, around) : await takeRecords(taking, what, siteId, read.table, read.ids)
      // A row is taken whole or not at all: what the register refused leaves its own fields alone, too.
      const refused = new Set(taken.bad.map(({ line }) => line))
      const kept = [...read.table.fresh, ...read.table.changed].filter(({ line }) => !refused.has(line))
      await takeOwn(taking, what, kept, own, taken.ids)
      return taken
    }
    const some = read.table.fresh.length + read.table.changed.length
    const taken = take ? await writes(context) : !isByHand(what) && some <= MOST_TRIED ? await tried(context, writes) : null
    const table = withRefused(read.table, taken)
    if (take)
      await tell({ kind: 'setup.table', siteId, details: { what, file: input.name ?? '', fresh: table.fresh, changed: table.changed, bad: table.bad.length } })
    return {
      columns: headings.map((heading, index) => ({ heading, sample: samples[index]!.slice(0, 80), field: matching[index]! })),
      fields: tableFields(what, own, without).map(({ code, name, required }) => ({ code, name, required })),
      unread,
      rows,
      fresh: table.fresh,
      changed: table.changed,
      same: read.table.same,
      bad: table.bad.slice(0, MOST_BAD),
      badCount: table.bad.length,
      taken: take,
    }
  },
  ({ db, who, input }) => {
    mustKeep(who, input.what, input.siteId)
    return mySite(db, who, input.siteId)
  },
)

/** A table changes nothing that a form would not let the same person change. @throws ProblemReply 403 */
function mustKeep(who: Asker, what: TableKind, siteId: number): void {
  const { edit, ofSite } = KINDS[what]
  const permission = edit.may as Permission
  if (ofSite ? !canAt(who, permission, siteId) : !can(who, permission)) throw notAllowed()
}

class TriedOut extends Error {}

/** What taking would come to: done and taken back again. */
async function tried(context: Taking, writes: (taking: Taking) => Promise<Taken>): Promise<Taken | null> {
  let taken: Taken | null = null
  try {
    await context.tx.transaction(async (tx) => {
      taken = await writes({ ...context, tx, tell: () => Promise.resolve() })
      throw new TriedOut()
    })
  } catch (error) {
    if (!(error instanceof TriedOut)) throw error
  }
  return taken
}

function withRefused(table: ReadTable, taken: Taken | null): { fresh: number; changed: number; bad: ReadTable['bad'] } {
  if (!taken) return { fresh: table.fresh.length, changed: table.changed.length, bad: table.bad }
  return { fresh: taken.fresh, changed: taken.changed, bad: [...table.bad, ...taken.bad].sort((a, b) => a.line - b.line) }
}

interface Around {
  known: KnownRecords
  placeRows: PlaceRecord[]
  payerIds: Map<string, number>
}

/** What a table of people or places is held against. */
async function aroundByHand(tx: Tx, siteId: number, what: ByHand): Promise<Around> {
  const payerRows = await tx.select({ id: payers.id, code: payers.code }).from(payers)
  const placeRows = await tx.select().from(places).where(eq(places.siteId, siteId))
  const codeOfPayer = new Map(payerRows.map((row) => [row.id, row.code]))
  const { records, ids } = what === 'places' ? knownPlaces(placeRows, codeOfPayer) : await knownPeople(tx, siteId, placeRows, codeOfPayer)
  const known: KnownRecords = {
    ...NOTHING_KNOWN,
    records,
    ids,
    values: {},
    placeKinds: Object.fromEntries(placeRows.map((row) => [row.code.toLowerCase(), row.kind])),
    payers: payerRows.map((row) => row.code),
    elsewhere: what === 'people' ? await mailsElsewhere(tx, siteId) : [],
  }
  return { known, placeRows, payerIds: new Map(payerRows.map((row) => [row.code.toLowerCase(), row.id])) }
}

async function takeByHand(
  { tx }: Taking,
  what: ByHand,
  site: Awaited<ReturnType<typeof mySite>>,
  table: ReadTable,
  { placeRows, payerIds }: Around,
): Promise<Taken> {
  const rows = [...table.fresh, ...table.changed]
  if (what === 'places') await takePlaces(tx, site, rows, placeRows, payerIds)
  else await takePeople(tx, site.id, table, placeRows, payerIds)
  return { fresh: table.fresh.length, changed: table.changed.length, bad: [], ids: await idsOf(tx, what, site.id, rows) }
}

interface KnownByKey {
  records: KnownRecords['records']
  ids: KnownRecords['ids']
}

type PlaceRecord = typeof places.$inferSelect

function knownPlaces(rows: PlaceRecord[], codeOfPayer: Map<number, string>): KnownByKey {
  const codeOf = new Map(rows.map((row) => [row.id, row.code]))
  const ids = Object.fromEntries(rows.map((row) => [row.code.toLowerCase(), row.id]))
  const records = Object.fromEntries(
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
  return { records, ids }
}

async function knownPeople(tx: Tx, siteId: number, placeRows: PlaceRecord[], codeOfPayer: Map<number, string>): Promise<KnownByKey> {
  const codeOf = new Map(placeRows.map((row) => [row.id, row.code]))
  const rows = (await tx.select().from(people).where(eq(people.siteId, siteId))).filter((row) => row.email)
  const ids = Object.fromEntries(rows.map((row) => [row.email!.toLowerCase(), row.id]))
  const records = Object.fromEntries(
    rows.map((row) => [
      row.email!.toLowerCase(),
      {
        name: row.name,
        email: row.email!,
        phone: row.phone ?? '',
        extension: row.extension ?? '',
        title: row.title ?? '',
        department: row.department ?? '',
        place: row.placeId ? (codeOf.get(row.placeId) ?? '') : '',
        payer: row.payerId ? codeOfPayer.get(row.payerId)! : '',
      },
    ]),
  )
  return { records, ids }
}

async function mailsElsewhere(tx: Tx, siteId: number): Promise<string[]> {
  const rows = await tx
    .select({ email: people.email })
    .from(people)
    .where(and(ne(people.siteId, siteId), isNotNull(people.email)))
  return rows.map((row) => row.email!.toLowerCase())
}
