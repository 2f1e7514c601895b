import { and, eq, inArray, isNotNull, ne, sql } from 'drizzle-orm'
import * as contract from '#contract/setup'
import type { TableReport } from '#contract/setup'
import { foldText, refuse } from '#core/kit'
import { keyOfRow, TABLE_FIELDS } from '#core/setup'
import type { KnownRecords, TableRow } from '#core/setup'
import { contentOf, inThread, isDuplicate, mySite, preparedCommand } from '#server/kit'
import type { Outgoing, Tx } from '#server/kit'
import { payers, people, places, sites } from '../tables'
import type { TableJob, TableResult } from './readTable.worker'

const readTable = inThread<TableJob, TableResult>('readTable.worker')
const MOST_BAD = 200
const AT_ONCE = 500

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
      if (what === 'places') await writePlaces(tx, site, [...table.fresh, ...table.changed], placeRows, payerIds)
      else await writePeople(tx, siteId, table, placeRows, payerIds)
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

/** Places parents first, so that every one finds its own above it. */
async function writePlaces(tx: Tx, site: typeof sites.$inferSelect, rows: TableRow[], before: PlaceRecord[], payerIds: Map<string, number>): Promise<void> {
  const byCode = new Map(before.map((row) => [row.code.toLowerCase(), row]))
  const root = before.find((row) => row.kind === 'site')
  if (!root) refuse('site_place', `${site.name} has no place of its own to put others in.`, 'siteId')
  for (const { fields, line } of rows) {
    const key = keyOfRow('places', fields)
    const payerId = fields.payer ? payerIds.get(fields.payer.toLowerCase())! : undefined
    const old = byCode.get(key)
    if (old) {
      const changed = { name: fields.name!, ...(fields.access ? { access: fields.access } : {}), ...(payerId ? { payerId } : {}) }
      await tx.update(places).set(changed).where(eq(places.id, old.id))
      byCode.set(key, { ...old, ...changed })
      continue
    }
    const parent = fields.parent ? byCode.get(fields.parent.toLowerCase())! : root
    const row = {
      siteId: site.id,
      parentId: parent.id,
      kind: fields.kind!.toLowerCase() as PlaceRecord['kind'],
      code: fields.code!,
      name: fields.name!,
      path: parent.path,
      searchText: '',
      access: fields.access || null,
      payerId: payerId ?? null,
      outline: null,
    }
    const [saved] = await tx
      .insert(places)
      .values(row)
      .$returningId()
      .catch((error: unknown) => {
        if (!isDuplicate(error)) throw error
        return refuse('row', `Line ${line}: the code ${row.code} reads like another here. Nothing was taken; give it another code.`, 'file')
      })
    const path = `${parent.path}${saved!.id}/`
    await tx.update(places).set({ path }).where(eq(places.id, saved!.id))
    byCode.set(key, { ...row, id: saved!.id, path })
  }
  await refreshSearch(tx, [...byCode.values()])
}

/** A name stands in the search words of everything below it. */
async function refreshSearch(tx: Tx, rows: PlaceRecord[]): Promise<void> {
  const byId = new Map(rows.map((row) => [row.id, row]))
  for (const row of rows) {
    const names = row.path
      .split('/')
      .filter(Boolean)
      .map((id) => byId.get(Number(id)))
      .filter((one) => one && (one.kind !== 'site' || one.id === row.id))
      .map((one) => one!.name)
      .reverse()
    const searchText = foldText(`${row.code} ${names.join(' ')}`).slice(0, 400)
    if (searchText !== row.searchText) await tx.update(places).set({ searchText }).where(eq(places.id, row.id))
  }
}

async function writePeople(
  tx: Tx,
  siteId: number,
  { fresh, changed }: { fresh: TableRow[]; changed: TableRow[] },
  placeRows: PlaceRecord[],
  payerIds: Map<string, number>,
): Promise<void> {
  const placeIds = new Map(placeRows.map((row) => [row.code.toLowerCase(), row.id]))
  const emails = [...fresh, ...changed].map(({ fields }) => fields.email!.toLowerCase())
  const before = new Map<string, typeof people.$inferSelect>()
  for (let from = 0; from < emails.length; from += AT_ONCE)
    for (const row of await tx
      .select()
      .from(people)
      .where(inArray(people.email, emails.slice(from, from + AT_ONCE))))
      before.set(row.email!.toLowerCase(), row)
  const rows = [...fresh, ...changed].map(({ fields }) => {
    const old = before.get(fields.email!.toLowerCase())
    const row = {
      siteId,
      name: fields.name!,
      email: fields.email!.toLowerCase(),
      phone: fields.phone || old?.phone || null,
      extension: fields.extension || old?.extension || null,
      title: fields.title || old?.title || null,
      placeId: fields.place ? placeIds.get(fields.place.toLowerCase())! : (old?.placeId ?? null),
      payerId: fields.payer ? payerIds.get(fields.payer.toLowerCase())! : (old?.payerId ?? null),
    }
    const searchText = foldText(`${row.name} ${row.email.replace('@', ' ')} ${row.extension ?? ''} ${row.title ?? ''}`).slice(0, 400)
    return { ...row, searchText }
  })
  for (let from = 0; from < rows.length; from += AT_ONCE)
    await tx
      .insert(people)
      .values(rows.slice(from, from + AT_ONCE))
      .onDuplicateKeyUpdate({
        set: Object.fromEntries(
          (['name', 'phone', 'extension', 'title', 'placeId', 'payerId', 'searchText'] as const).map((column) => [
            column,
            sql.raw(`values(\`${people[column].name}\`)`),
          ]),
        ),
      })
}
