import { foldText } from '#core/kit'
import { REGISTER_TABLES } from '#core/lists'
import { OWN_KINDS, ownName } from '#core/own'
import type { OwnField, OwnKind } from '#core/own'
import { REGISTERS } from '#core/registers'
import type { AnyFieldTable, RegisterField, RegisterName } from '#core/registers'

/** What may come in from a table: the records of any register. */
export const TABLE_KINDS = REGISTERS
export type TableKind = RegisterName

export interface TableField {
  code: string
  name: string
  required: boolean
  most: number
  /** Other headings it is known by, folded (common practice, no source). */
  also: string[]
  /** What its cells are read as; without it they are text that people and places read by rules of their own. */
  cell?: { of: 'record'; field: RegisterField } | { of: 'own'; field: OwnField }
}

const field = (code: string, name: string, most: number, also: string[] = [], required = false): TableField => ({ code, name, required, most, also })

/** People come by their mail address and places by the tree their codes name. */
const BY_HAND: Partial<Record<TableKind, TableField[]>> = {
  people: [
    field('name', 'Name', 120, ['full name', 'display name', 'person'], true),
    field('email', 'Mail address', 190, ['email', 'e mail', 'mail', 'email address'], true),
    field('phone', 'Phone', 40, ['telephone', 'mobile', 'tel']),
    field('extension', 'Extension', 12, ['ext', 'internal number']),
    field('title', 'Role', 120, ['title', 'job title', 'position', 'function']),
    field('department', 'Department', 120, ['dept', 'unit', 'organisation', 'organization']),
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

/** The field by which a record is known again, and what it is called in a sentence. */
const KEYS: Record<TableKind, { code: string; word: string }> = {
  places: { code: 'code', word: 'code' },
  assets: { code: 'tag', word: 'tag' },
  people: { code: 'email', word: 'mail address' },
  teams: { code: 'name', word: 'name' },
  vendors: { code: 'name', word: 'name' },
  payers: { code: 'code', word: 'code' },
  parts: { code: 'code', word: 'code' },
  stores: { code: 'name', word: 'name' },
  equipment: { code: 'tag', word: 'tag' },
  methods: { code: 'code', word: 'code' },
}
export const keyField = (kind: TableKind): { code: string; word: string } => KEYS[kind]

/** What others call these, folded (common practice, no source). */
const ALSO: Record<string, string[]> = {
  tag: ['asset tag', 'asset id', 'asset number', 'barcode', 'id', 'number'],
  code: ['id', 'number', 'part number', 'item', 'cost centre', 'cost center'],
  name: ['description', 'title'],
  placeId: ['room', 'location', 'place code', 'room code'],
  parentId: ['parent', 'parent tag', 'component of'],
  classCode: ['uniformat', 'asset class', 'class', 'type'],
  payerId: ['cost centre', 'cost center', 'payer code'],
  contactId: ['contact', 'contact person'],
  maker: ['manufacturer', 'make', 'brand'],
  model: ['model number'],
  serial: ['serial', 'serial no', 's n'],
  installedOn: ['installation date', 'install date', 'in service'],
  priceMinor: ['cost', 'purchase price', 'replacement cost'],
  lifeYears: ['life', 'expected life years', 'useful life'],
  vendorId: ['supplier', 'contractor'],
  warrantyFrom: ['warranty start'],
  warrantyUntil: ['warranty end', 'warranty'],
  successorId: ['successor', 'replaced with'],
  email: ['email', 'e mail', 'mail address', 'email address'],
  phone: ['telephone', 'mobile', 'tel'],
  callOutMinor: ['call out fee'],
  perHourMinor: ['hourly rate', 'rate'],
  markupBp: ['markup percent'],
  taxBp: ['vat', 'tax rate', 'tax percent'],
  budgetMinor: ['budget', 'yearly budget'],
  unit: ['unit of measure', 'uom'],
}

/** @param without fields that are not theirs who bring the table: they are in no column then. */
export function tableFields(kind: TableKind, own: readonly OwnField[] = [], without: readonly string[] = []): TableField[] {
  return [
    ...(BY_HAND[kind] ?? registerFields(kind).filter(({ code }) => !without.includes(code))),
    ...own.map((one): TableField => ({ code: ownName(one.id), name: one.label, required: false, most: 400, also: [], cell: { of: 'own', field: one } })),
  ]
}

function registerFields(kind: TableKind): TableField[] {
  return Object.entries(REGISTER_TABLES[kind] as AnyFieldTable).map(([code, one]) => ({
    code,
    name: one.label,
    required: code === KEYS[kind].code,
    most: 'most' in one && one.kind !== 'count' ? one.most : 400,
    also: ALSO[code] ?? [],
    cell: { of: 'record', field: one },
  }))
}

/** What a site may add fields to, if this is one of them. */
export const ownKindOf = (kind: TableKind): OwnKind | null => OWN_KINDS.find((one) => one === kind) ?? null

/** For each column the field it fills, or null. Each field is filled once, by the first column that fits. */
export type Matching = (string | null)[]

/** What each heading most likely means. A matching that somebody chose goes before it. */
export function matchColumns(fields: readonly TableField[], headings: readonly string[]): Matching {
  const taken = new Set<string>()
  const fits = (heading: string, exact: boolean) => {
    const words = foldText(heading)
    return fields.find((one) => !taken.has(one.code) && (exact ? [foldText(one.name), one.code].includes(words) : one.also.includes(words)))
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
export function matchingReasons(fields: readonly TableField[], matching: Matching): string[] {
  const filled = matching.filter((one) => one !== null)
  return fields.flatMap((one) => {
    const times = filled.filter((code) => code === one.code).length
    if (times > 1) return [`Two columns are ${one.name}. Choose one.`]
    return one.required && !times ? [`No column is ${one.name}. Choose which one it is.`] : []
  })
}
