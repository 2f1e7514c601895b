import { foldText, readDay, readDecimal, readMoney, readPercent } from '#core/kit'
import type { DecimalSign } from '#core/kit'
import { readOwnValue } from '#core/own'
import type { OwnField } from '#core/own'
import type { FieldValue, NamedKind, RegisterField } from '#core/registers'
import type { TableField } from './tableFields'

/** How the site that gets the table writes. */
export interface CellTerms {
  sign: DecimalSign
  currency: string
  monthFirst: boolean
  /** The day at the site, "2026-11-25". */
  today: string
}

/** Who bears a name: by kind, and by code, name or mail address, folded. */
export type NameIndex = Partial<Record<NamedKind, Record<string, number[]>>>

export type ReadCell = { value: FieldValue } | { problem: string }

const ONE: Record<NamedKind, string> = {
  place: 'place',
  asset: 'asset',
  person: 'person',
  team: 'team',
  vendor: 'vendor',
  payer: 'payer',
  account: 'person with an account',
  trade: 'trade',
  category: 'category',
}

/** Makes the names of these findable by code, by name, and by both as lists show them. */
export function indexNames(rows: readonly { id: number; code: string | null; name: string }[]): Record<string, number[]> {
  const index = new Map<string, number[]>()
  for (const { id, code, name } of rows)
    for (const words of new Set([code, name, code && `${code} ${name}`].filter((one) => one !== null && one !== '').map((one) => foldText(one!))))
      index.set(words, [...(index.get(words) ?? []), id])
  return Object.fromEntries(index)
}

/** What every cell of a row that has a reader means, by field; and what cannot be read, in sentences. Empty cells mean nothing. */
export function readCells(
  fields: readonly TableField[],
  cells: Readonly<Record<string, string>>,
  terms: CellTerms,
  names: NameIndex,
): { values: Record<string, FieldValue>; sentences: string[] } {
  const values: Record<string, FieldValue> = {}
  const sentences: string[] = []
  for (const field of fields) {
    const cell = cells[field.code] ?? ''
    if (!field.cell || !cell) continue
    const read = field.cell.of === 'own' ? readOwnCell(field.cell.field, cell, terms, names) : readRecordCell(field.cell.field, cell, terms, names)
    if ('value' in read) values[field.code] = read.value
    else sentences.push(`${field.name}: ${read.problem}`)
  }
  return { values, sentences }
}

function readRecordCell(field: RegisterField, cell: string, terms: CellTerms, names: NameIndex): ReadCell {
  switch (field.kind) {
    case 'line':
    case 'text':
      return cell.length <= field.most ? { value: cell } : { problem: `at most ${field.most} characters.` }
    case 'mail':
      return /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(cell) && cell.length <= 190 ? { value: cell.toLowerCase() } : { problem: `${cell} is no mail address.` }
    case 'money':
      return atLeastNought(readMoney(cell, terms.sign, terms.currency), cell)
    case 'percent':
      return atLeastNought(readPercent(cell, terms.sign), cell)
    case 'count':
      return readCount(field.most, cell, terms)
    case 'day':
      return readDayCell(cell, terms)
    case 'choice':
      return readChoice(field.choices, cell)
    case 'named':
      return readNamed(field.of, cell, names)
  }
}

function readOwnCell(field: OwnField, cell: string, terms: CellTerms, names: NameIndex): ReadCell {
  switch (field.shape) {
    case 'number': {
      const digits = field.unit && cell.toLowerCase().endsWith(field.unit.toLowerCase()) ? cell.slice(0, -field.unit.length) : cell
      const read = readDecimal(digits, terms.sign, 4)
      return read.problem === undefined ? readOwnValue(field, read.value) : { problem: `${cell} is no number, or has more than four decimals.` }
    }
    case 'flag':
      return readFlag(cell)
    case 'choice':
      return readChoice(Object.fromEntries(field.choices.map(({ key, name }) => [key, name])), cell)
    case 'date':
      return readDayCell(cell, terms)
    case 'person':
      return readNamed('person', cell, names)
    default:
      return readOwnValue(field, cell)
  }
}

function atLeastNought(read: { value: number | null; problem?: undefined } | { value?: undefined; problem: string }, cell: string): ReadCell {
  if (read.problem !== undefined) return { problem: read.problem }
  return read.value !== null && read.value < 0 ? { problem: `${cell} is below nought.` } : { value: read.value }
}

function readCount(most: number, cell: string, { sign }: CellTerms): ReadCell {
  const read = readDecimal(cell, sign, 0)
  if (read.problem !== undefined) return { problem: read.problem }
  const count = Number(read.value)
  return count >= 0 && count <= most ? { value: count } : { problem: `a whole number from 0 to ${most}.` }
}

function readDayCell(cell: string, { today, monthFirst }: CellTerms): ReadCell {
  // Programs that keep a day with a time write nought o’clock behind it.
  const read = readDay(cell.replace(/[T ]00:00(:00(\.0+)?)?Z?$/, ''), { now: `${today}T00:00`, monthFirst })
  return read.problem === undefined ? { value: read.value } : { problem: `${cell} is no day. Write it like 2026-11-24.` }
}

const YES = ['yes', 'y', 'true', '1', 'x']
const NO = ['no', 'n', 'false', '0']
function readFlag(cell: string): ReadCell {
  const word = cell.toLowerCase()
  if (YES.includes(word)) return { value: 1 }
  return NO.includes(word) ? { value: 0 } : { problem: 'say yes or no.' }
}

/** A choice is known by its key, by its name, and by its name up to a colon. */
function readChoice(choices: Readonly<Record<string, string>>, cell: string): ReadCell {
  const meant = foldText(cell)
  const found = Object.entries(choices).find(([key, name]) => [key, name, name.split(':')[0]!, `${key} ${name}`].some((one) => foldText(one) === meant))
  if (found) return { value: found[0] }
  const names = Object.values(choices).map((name) => name.split(':')[0]!)
  return { problem: names.length > 8 ? `${cell} is none of the values there are.` : `${cell} is none of ${names.join(', ')}.` }
}

function readNamed(of: NamedKind, cell: string, names: NameIndex): ReadCell {
  const [index, words] = [names[of] ?? {}, foldText(cell)]
  const found = Object.hasOwn(index, words) ? index[words]! : []
  if (found.length === 1) return { value: found[0]! }
  return {
    problem: found.length ? `${cell} is the name of several. Write ${of === 'person' ? 'a mail address' : 'a code'}.` : `there is no ${ONE[of]} ${cell}.`,
  }
}
