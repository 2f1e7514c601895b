import { mayHold, PLACE_KINDS } from '#core/places'
import type { PlaceKind } from '#core/places'
import type { FieldValue } from '#core/registers'
import { readCells } from './tableCells'
import type { CellTerms, NameIndex } from './tableCells'
import { keyField } from './tableFields'
import type { TableField, TableKind } from './tableFields'

export interface BadRow {
  /** The line of the file it begins on, from 1; the heading is line 1. */
  line: number
  sentences: string[]
  cells: string[]
}

export interface TableRow<Fields = Record<string, string>> {
  line: number
  cells: string[]
  fields: Fields
  /** What was read from the cells that have a reader: of registers all, of people and places the fields of one's own. */
  values?: Record<string, FieldValue>
  /** Fields that name another row of the table, with its key: read once that row is there. */
  names?: Record<string, string>
}

/** What is there already, as far as a table is held against it. */
export interface KnownRecords {
  /** By key in lower case: the fields of people and places as they stand, as text. */
  records: Record<string, Record<string, string>>
  placeKinds: Record<string, string>
  payers: string[]
  /** Mail addresses, in lower case, that people of other sites have. */
  elsewhere: string[]
  /** By key in lower case: what is kept in the fields that have a reader. */
  values: Record<string, Record<string, FieldValue>>
  /** Keys, in lower case, with the ids they have. */
  ids: Record<string, number>
  /** Keys, in lower case, of records that are retired. */
  retired: string[]
  names: NameIndex
}

export const NOTHING_KNOWN: KnownRecords = { records: {}, placeKinds: {}, payers: [], elsewhere: [], values: {}, ids: {}, retired: [], names: {} }

export interface ReadTable {
  fresh: TableRow[]
  changed: TableRow[]
  same: number
  bad: BadRow[]
}

/** What a table is held against. */
export interface TableStandards {
  kind: TableKind
  fields: readonly TableField[]
  known: KnownRecords
  terms: CellTerms
}

const MAIL = /^[^\s@]+@[^\s@]+\.[^\s@]+$/
/** What a place of a kind may stand in; none for what is no kind of place a table can bring. */
const kindsAbove = (kind: string): PlaceKind[] => PLACE_KINDS.filter((outer) => outer !== 'site' && BROUGHT.includes(kind) && mayHold(outer, kind as PlaceKind))
const BROUGHT: readonly string[] = PLACE_KINDS.filter((kind) => kind !== 'site')
/** These stand at the site itself when nothing is said. */
const AT_SITE = ['building', 'grounds']
export const keyOfRow = (kind: TableKind, fields: Record<string, string>): string => (fields[keyField(kind).code] ?? '').toLowerCase()

/** As the index of the database compares: without accents and case. Two that read alike there cannot both be. */
const readAs = (key: string): string =>
  key
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/ß/g, 's')
    .trim()

/**
 * Sorts rows into new, changed, unchanged and bad. A bad row says everything that is wrong with it; one that
 * names a row that is bad is bad too. An empty cell leaves what is there.
 */
export function sortRows(standards: TableStandards, all: readonly TableRow[]): ReadTable {
  const { kind, fields, known } = standards
  const rows = byCode(standards, all)
  const sorted: ReadTable = { fresh: [], changed: [], same: 0, bad: [] }
  const wrongWith = wrongIn(standards, rows)
  const twice = new KeysOnce(kind, known)
  const good: TableRow[] = []
  const namesIn = siblingsIn(standards, rows)
  for (const row of rows) {
    const names = namesIn(row)
    const read = readCells(
      fields.filter(({ code }) => !(code in names)),
      row.fields,
      standards.terms,
      known.names,
    )
    const sentences = [...missingIn(standards, row), ...read.sentences, ...wrongWith(row), ...twice.wrong(row)]
    if (sentences.length) sorted.bad.push({ line: row.line, sentences, cells: row.cells })
    else good.push({ ...row, values: read.values, names })
  }
  const there = new Set(kind === 'places' ? Object.keys(known.placeKinds) : Object.keys(known.values))
  for (const row of inOrder(kind, good, there, sorted.bad)) {
    const key = keyOfRow(kind, row.fields)
    if (!isKnown(known, key)) sorted.fresh.push(row)
    else if (isChanged(standards, row, key)) sorted.changed.push(row)
    else sorted.same++
  }
  sorted.bad.sort((a, b) => a.line - b.line)
  return sorted
}

/** Places and payers as a list shows them, the code before the name, are meant by their code. */
function byCode({ fields, known }: TableStandards, rows: readonly TableRow[]): readonly TableRow[] {
  const codes: Record<string, Set<string>> = { place: new Set(Object.keys(known.placeKinds)), payer: new Set(known.payers.map((code) => code.toLowerCase())) }
  const meant = { place: codes.place!, parent: codes.place!, payer: codes.payer! }
  const asked = Object.entries(meant).filter(([code]) => fields.some((one) => one.code === code && !one.cell))
  if (!asked.length) return rows
  const short = (cell: string, among: Set<string>) => {
    const [first = ''] = cell.split(' ')
    return !among.has(cell.toLowerCase()) && among.has(first.toLowerCase()) ? first : cell
  }
  return rows.map((row) => ({
    ...row,
    fields: { ...row.fields, ...Object.fromEntries(asked.flatMap(([code, among]) => (row.fields[code] ? [[code, short(row.fields[code], among)]] : []))) },
  }))
}

const isKnown = (known: KnownRecords, key: string) => Object.hasOwn(known.records, key) || Object.hasOwn(known.values, key)

function isChanged({ fields, known }: TableStandards, row: TableRow, key: string): boolean {
  const [texts, values] = [known.records[key] ?? {}, known.values[key] ?? {}]
  return fields.some(({ code, cell }) => {
    if (row.names?.[code]) return (known.ids[row.names[code]] ?? 0) !== values[code]
    if (cell) return row.values?.[code] !== undefined && row.values[code] !== (values[code] ?? null)
    return !!row.fields[code] && !sameField(code, row.fields[code], texts[code] ?? '')
  })
}

const sameField = (code: string, one: string, other: string) =>
  ['email', 'kind', 'parent', 'place', 'payer', 'code'].includes(code) ? one.toLowerCase() === other.toLowerCase() : one === other

/** What a new record needs, and what is longer than it may be. */
function missingIn({ kind, fields, known }: TableStandards, row: TableRow): string[] {
  const fresh = !isKnown(known, keyOfRow(kind, row.fields))
  return fields.flatMap((one) => {
    const value = row.fields[one.code] ?? ''
    const needed = one.required || (fresh && one.cell?.of === 'record' && one.cell.field.needed && !(one.code in USUAL))
    if (!value) return needed ? [`${one.name} is missing.`] : []
    return !one.cell && value.length > one.most ? [`${one.name} is longer than ${one.most} characters.`] : []
  })
}

/** What a new record has when its table says nothing of it. */
export const USUAL: Record<string, FieldValue> = { owner: 'us' }

/** What is particular to people and places, and to what is out of use. */
function wrongIn({ kind, fields, known }: TableStandards, rows: readonly TableRow[]): (row: TableRow) => string[] {
  const kindOf = new Map(Object.entries(known.placeKinds))
  if (kind === 'places') for (const row of rows) if (row.fields.code) kindOf.set(keyOfRow(kind, row.fields), (row.fields.kind ?? '').toLowerCase())
  const payers = new Set(known.payers.map((code) => code.toLowerCase()))
  const retired = new Set(known.retired)
  const byHand = fields.some((one) => one.code === 'payer')
  return (row) => [
    ...(kind === 'people' ? wrongPerson(row, known) : kind === 'places' ? wrongPlace(row, known, kindOf) : []),
    ...(byHand && row.fields.payer && !payers.has(row.fields.payer.toLowerCase()) ? [`There is no payer ${row.fields.payer}.`] : []),
    ...(retired.has(keyOfRow(kind, row.fields)) ? [`${row.fields[keyField(kind).code]} is retired here. Take it into use again first.`] : []),
  ]
}

/** Says which key stands twice, in the table or in a spelling the database reads alike. */
class KeysOnce {
  private readonly firstLine = new Map<string, number>()
  private readonly alike: Map<string, string>
  private readonly word: string

  constructor(
    private readonly kind: TableKind,
    known: KnownRecords,
  ) {
    this.alike = new Map([...Object.keys(known.records), ...Object.keys(known.values)].map((key) => [readAs(key), key]))
    this.word = keyField(kind).word
  }

  wrong({ fields, line }: TableRow): string[] {
    const key = keyOfRow(this.kind, fields)
    if (!key) return []
    const first = this.firstLine.get(key)
    if (first !== undefined) return [`Line ${first} is the same ${this.word}.`]
    this.firstLine.set(key, line)
    const other = this.alike.get(readAs(key))
    if (other !== undefined && other !== key)
      return [`${key.toUpperCase()} and ${other.toUpperCase()} differ by an accent alone. Give one of them another ${this.word}.`]
    this.alike.set(readAs(key), key)
    return []
  }
}

function wrongPerson({ fields }: TableRow, known: KnownRecords): string[] {
  const wrong: string[] = []
  if (fields.email && !MAIL.test(fields.email)) wrong.push(`${fields.email} is no mail address.`)
  if (fields.email && known.elsewhere.includes(fields.email.toLowerCase())) wrong.push(`${fields.email} belongs to somebody of another site.`)
  if (fields.place && !known.placeKinds[fields.place.toLowerCase()]) wrong.push(`There is no place ${fields.place}.`)
  return wrong
}

function wrongPlace({ fields }: TableRow, known: KnownRecords, kindOf: Map<string, string>): string[] {
  const kind = (fields.kind ?? '').toLowerCase()
  const before = known.records[(fields.code ?? '').toLowerCase()]
  if (!kind || (kind === 'site' && before?.kind === 'site')) return []
  if (!BROUGHT.includes(kind)) return [`${fields.kind} is no kind of place. It is one of ${BROUGHT.join(', ')}.`]
  const wrong: string[] = []
  const above = kindsAbove(kind)
  if (before && before.kind !== kind) wrong.push(`${fields.code} is a ${before.kind} here; a table cannot make it a ${kind}.`)
  if (before && fields.parent && before.parent!.toLowerCase() !== fields.parent.toLowerCase())
    wrong.push(`${fields.code} is in ${before.parent || 'the site'} here; a table cannot move it.`)
  if (!fields.parent) {
    if (!before && !AT_SITE.includes(kind)) wrong.push(`Say which ${above.join(' or ')} it is in.`)
    return wrong
  }
  const parentKind = kindOf.get(fields.parent.toLowerCase())
  if (!parentKind) wrong.push(`There is no place ${fields.parent} to be in.`)
  else if (!before && parentKind !== 'site' && !above.some((one) => one === parentKind))
    wrong.push(`A ${kind} is in a ${above.join(' or ')}; ${fields.parent} is a ${parentKind}.`)
  return wrong
}

/** For each row, the fields in which it names another of the same table. */
function siblingsIn({ kind, fields }: TableStandards, rows: readonly TableRow[]): (row: TableRow) => Record<string, string> {
  if (kind !== 'assets') return () => ({})
  const keys = new Set(rows.map((row) => keyOfRow(kind, row.fields)))
  const naming = fields.filter(({ cell }) => cell?.of === 'record' && cell.field.kind === 'named' && cell.field.of === 'asset').map(({ code }) => code)
  return ({ fields: cells }) =>
    Object.fromEntries(naming.flatMap((code) => (cells[code] && keys.has(cells[code].toLowerCase()) ? [[code, cells[code].toLowerCase()]] : [])))
}

/** The keys of rows that have to be there before this one. */
const waitsFor = (kind: TableKind, { fields, names = {} }: TableRow): string[] =>
  kind === 'places' ? (fields.parent ? [fields.parent.toLowerCase()] : []) : Object.values(names)

/** Rows in an order in which each finds what it names; those that never would become bad. */
function inOrder(kind: TableKind, rows: TableRow[], there: Set<string>, bad: BadRow[]): TableRow[] {
  const ordered: TableRow[] = []
  let left = rows
  for (;;) {
    const ready = new Set(left.filter((row) => waitsFor(kind, row).every((key) => there.has(key))))
    for (const row of ready) there.add(keyOfRow(kind, row.fields))
    ordered.push(...ready)
    left = left.filter((row) => !ready.has(row))
    if (!ready.size || !left.length) break
  }
  for (const row of left) {
    const missing =
      kind === 'places'
        ? row.fields.parent
        : waitsFor(kind, row)
            .find((key) => !there.has(key))
            ?.toUpperCase()
    bad.push({ line: row.line, sentences: [`${missing}, which it ${kind === 'places' ? 'is in' : 'names'}, is not taken.`], cells: row.cells })
  }
  return ordered
}
