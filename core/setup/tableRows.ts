import { foldText } from '#core/kit'

/** What may come in from a table. */
export const TABLE_KINDS = ['people', 'places'] as const
export type TableKind = (typeof TABLE_KINDS)[number]

export interface TableField {
  code: string
  name: string
  required: boolean
  most: number
  /** Other headings it is known by, folded (common practice, no source). */
  also: string[]
}

const field = (code: string, name: string, most: number, also: string[] = [], required = false): TableField => ({ code, name, required, most, also })

export const TABLE_FIELDS: Record<TableKind, TableField[]> = {
  people: [
    field('name', 'Name', 120, ['full name', 'display name', 'person'], true),
    field('email', 'Mail address', 190, ['email', 'e mail', 'mail', 'email address'], true),
    field('phone', 'Phone', 40, ['telephone', 'mobile', 'tel']),
    field('extension', 'Extension', 12, ['ext', 'internal number']),
    field('title', 'Role', 120, ['title', 'job title', 'position', 'function']),
    field('place', 'Place code', 32, ['place', 'room', 'room code', 'location']),
    field('payer', 'Payer code', 32, ['payer', 'cost centre', 'cost center', 'department code']),
  ],
  places: [
    field('code', 'Code', 32, ['place code', 'room code', 'id', 'number'], true),
    field('name', 'Name', 120, ['place', 'room name', 'description'], true),
    field('kind', 'Kind', 12, ['type', 'level'], true),
    field('parent', 'Code of the place it is in', 32, ['parent', 'parent code', 'within', 'in', 'building', 'floor']),
    field('access', 'How to get in', 500, ['access', 'access note']),
    field('payer', 'Payer code', 32, ['payer', 'cost centre', 'cost center']),
  ],
}

/** For each column the field it fills, or null. Each field is filled once, by the first column that fits. */
export type Matching = (string | null)[]

/** What each heading most likely means. A matching that somebody chose goes before it. */
export function matchColumns(kind: TableKind, headings: readonly string[]): Matching {
  const taken = new Set<string>()
  const fits = (heading: string, exact: boolean) => {
    const words = foldText(heading)
    return TABLE_FIELDS[kind].find((one) => !taken.has(one.code) && (exact ? [foldText(one.name), one.code].includes(words) : one.also.includes(words)))
  }
  const matching: Matching = headings.map(() => null)
  for (const exact of [true, false])
    headings.forEach((heading, index) => {
      const found = matching[index] ? undefined : fits(heading, exact)
      if (!found) return
      taken.add(found.code)
      matching[index] = found.code
    })
  return matching
}

/** Why the columns cannot be read so: a needed field without a column, or one with two. */
export function matchingReasons(kind: TableKind, matching: Matching): string[] {
  const filled = matching.filter((one) => one !== null)
  return TABLE_FIELDS[kind].flatMap((one) => {
    const times = filled.filter((code) => code === one.code).length
    if (times > 1) return [`Two columns are ${one.name}. Choose one.`]
    return one.required && !times ? [`No column is ${one.name}. Choose which one it is.`] : []
  })
}

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
}

/** What is there already, as far as a table is held against it. */
export interface KnownRecords {
  /** By folded mail address or code: the fields as they stand. */
  records: Record<string, Record<string, string>>
  placeKinds: Record<string, string>
  payers: string[]
  /** Mail addresses, in lower case, that people of other sites have. */
  elsewhere: string[]
}

export interface ReadTable {
  fresh: TableRow[]
  changed: TableRow[]
  same: number
  bad: BadRow[]
}

const MAIL = /^[^\s@]+@[^\s@]+\.[^\s@]+$/
const KINDS_UNDER: Record<string, string[]> = {
  building: ['site'],
  grounds: ['site'],
  floor: ['building'],
  space: ['floor', 'building', 'grounds'],
}
export const keyOfRow = (kind: TableKind, fields: Record<string, string>): string => ((kind === 'people' ? fields.email : fields.code) ?? '').toLowerCase()

/** As the index of the database compares: without accents and case. Two that read alike there cannot both be. */
const readAs = (key: string): string =>
  key
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/ß/g, 's')
    .trim()

/**
 * Sorts rows into new, changed, unchanged and bad. A bad row says everything that is wrong with it;
 * a place whose parent is bad is bad too. An empty cell leaves what is there.
 */
export function sortRows(kind: TableKind, rows: readonly TableRow[], known: KnownRecords): ReadTable {
  const sorted: ReadTable = { fresh: [], changed: [], same: 0, bad: [] }
  const firstLine = new Map<string, number>()
  const kindOf = new Map(Object.entries(known.placeKinds))
  for (const row of rows) if (kind === 'places' && row.fields.code) kindOf.set(keyOfRow(kind, row.fields), (row.fields.kind ?? '').toLowerCase())
  const payers = new Set(known.payers.map((code) => code.toLowerCase()))
  const good: TableRow[] = []
  const alike = new Map(Object.keys(known.records).map((key) => [readAs(key), key]))
  for (const row of rows) {
    const key = keyOfRow(kind, row.fields)
    const sentences = [...missingIn(kind, row), ...(kind === 'people' ? wrongPerson(row, known) : wrongPlace(row, known, kindOf))]
    if (row.fields.payer && !payers.has(row.fields.payer.toLowerCase())) sentences.push(`There is no payer ${row.fields.payer}.`)
    if (key && firstLine.has(key)) sentences.push(`Line ${firstLine.get(key)} is the same ${kind === 'people' ? 'mail address' : 'code'}.`)
    else if (key) firstLine.set(key, row.line)
    const other = alike.get(readAs(key))
    if (key && other !== undefined && other !== key)
      sentences.push(
        `${key.toUpperCase()} and ${other.toUpperCase()} differ by an accent alone. Give one of them another ${kind === 'people' ? 'mail address' : 'code'}.`,
      )
    else if (key) alike.set(readAs(key), key)
    if (sentences.length) sorted.bad.push({ line: row.line, sentences, cells: row.cells })
    else good.push(row)
  }
  for (const row of kind === 'places' ? withoutOrphans(good, known, sorted.bad) : good) {
    const before = known.records[keyOfRow(kind, row.fields)]
    if (!before) sorted.fresh.push(row)
    else if (TABLE_FIELDS[kind].some(({ code }) => row.fields[code] && !sameField(code, row.fields[code], before[code] ?? ''))) sorted.changed.push(row)
    else sorted.same++
  }
  sorted.bad.sort((a, b) => a.line - b.line)
  return sorted
}

const sameField = (code: string, one: string, other: string) =>
  ['email', 'kind', 'parent', 'place', 'payer', 'code'].includes(code) ? one.toLowerCase() === other.toLowerCase() : one === other

const missingIn = (kind: TableKind, { fields }: TableRow) =>
  TABLE_FIELDS[kind].flatMap((one) => {
    const value = fields[one.code] ?? ''
    if (!value) return one.required ? [`${one.name} is missing.`] : []
    return value.length > one.most ? [`${one.name} is longer than ${one.most} characters.`] : []
  })

function wrongPerson({ fields }: TableRow, known: KnownRecords): string[] {
  const wrong: string[] = []
  if (fields.email && !MAIL.test(fields.email)) wrong.push(`${fields.email} is no mail address.`)
  if (fields.email && known.elsewhere.includes(fields.email.toLowerCase())) wrong.push(`${fields.email} belongs to somebody of another site.`)
  if (fields.place && !known.placeKinds[fields.place.toLowerCase()]) wrong.push(`There is no place ${fields.place}.`)
  return wrong
}

function wrongPlace({ fields }: TableRow, known: KnownRecords, kindOf: Map<string, string>): string[] {
  const kind = (fields.kind ?? '').toLowerCase()
  if (!kind) return []
  const above = KINDS_UNDER[kind]
  if (!above) return [`${fields.kind} is no kind of place. It is one of ${Object.keys(KINDS_UNDER).join(', ')}.`]
  const wrong: string[] = []
  const before = known.records[(fields.code ?? '').toLowerCase()]
  if (before && before.kind !== kind) wrong.push(`${fields.code} is a ${before.kind} here; a table cannot make it a ${kind}.`)
  if (before && fields.parent && before.parent!.toLowerCase() !== fields.parent.toLowerCase())
    wrong.push(`${fields.code} is in ${before.parent || 'the site'} here; a table cannot move it.`)
  if (!fields.parent) {
    if (!before && !above.includes('site')) wrong.push(`Say which ${above.join(' or ')} it is in.`)
    return wrong
  }
  const parentKind = kindOf.get(fields.parent.toLowerCase())
  if (!parentKind) wrong.push(`There is no place ${fields.parent} to be in.`)
  else if (!above.includes(parentKind)) wrong.push(`A ${kind} is in a ${above.join(' or ')}; ${fields.parent} is a ${parentKind}.`)
  return wrong
}

/** Rows whose place above can be made, parents first; the others become bad. */
function withoutOrphans(rows: TableRow[], known: KnownRecords, bad: BadRow[]): TableRow[] {
  const there = new Set(Object.keys(known.placeKinds))
  const ordered: TableRow[] = []
  let left = rows
  for (;;) {
    const ready = left.filter(({ fields }) => !fields.parent || there.has(fields.parent.toLowerCase()))
    for (const row of ready) there.add(keyOfRow('places', row.fields))
    ordered.push(...ready)
    left = left.filter((row) => !ready.includes(row))
    if (!ready.length || !left.length) break
  }
  for (const row of left) bad.push({ line: row.line, sentences: [`${row.fields.parent}, which it is in, is not taken.`], cells: row.cells })
  return ordered
}
