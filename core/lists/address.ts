import { formatClause, parseClause } from './clauses'
import type { Clause } from './clauses'
import { fieldIn, LIST_FIELDS, USUAL_COLUMNS, usualSort } from './fields'
import type { ListKind, ListSort } from './fields'
import type { ListField } from './shapes'

export const PAGE_SIZES = ['10', '20', '50', 'all'] as const
export type PageSize = (typeof PAGE_SIZES)[number]

/** Everything about how a list looks: what the address bar holds, a view saves and the server answers. */
export interface ListAsk {
  kind: ListKind
  /** What it can be asked for, by who looks at it. */
  fields: readonly ListField[]
  clauses: Clause[]
  sort: ListSort
  group: string | null
  columns: readonly string[]
  size: PageSize
  compact: boolean
}

const SORT = 'sort'
const GROUP = 'group'
const COLUMNS = 'columns'
const SIZE = 'size'
const ROWS = 'rows'

/**
 * A list from its address, like "state=ready,dispatched&finished=-30d..&sort=-finished".
 * What cannot be read is left out and named in `wrong`.
 */
export function parseAsk(kind: ListKind, address: string, fields: readonly ListField[] = LIST_FIELDS[kind]): { ask: ListAsk; wrong: string[] } {
  const given = new URLSearchParams(address)
  const wrong: string[] = []
  const take = <T>(name: string, read: (text: string) => T | null, otherwise: T): T => {
    const text = given.get(name)
    given.delete(name)
    if (!text) return otherwise
    const value = read(text)
    if (value === null) wrong.push(name)
    return value ?? otherwise
  }
  const sort = take(
    SORT,
    (text) => {
      const field = text.replace(/^-/, '')
      return fieldIn(fields, field)?.sorts ? { field, down: text.startsWith('-') } : null
    },
    usualSort(kind),
  )
  const group = take<string | null>(GROUP, (text) => (fieldIn(fields, text)?.groups ? text : null), null)
  const columns = take<readonly string[]>(
    COLUMNS,
    (text) => {
      const names = [...new Set(text.split(','))]
      return names.every((name) => fieldIn(fields, name)?.shows) ? names : null
    },
    USUAL_COLUMNS[kind],
  )
  const size = take<PageSize>(SIZE, (text) => PAGE_SIZES.find((one) => one === text) ?? null, '50')
  const compact = take(ROWS, (text) => (text === 'compact' ? true : text === 'comfortable' ? false : null), false)
  const clauses: Clause[] = []
  for (const [name, text] of given) {
    const field = fieldIn(fields, name)
    const clause = !field || clauses.some((one) => one.field === name) ? null : parseClause(field, text)
    if (clause) clauses.push(clause)
    else wrong.push(name)
  }
  return { ask: { kind, fields, clauses, sort, group, columns, size, compact }, wrong }
}

/** The address of a list; what is as usual is left out. {@link parseAsk} reads it back. */
export function formatAsk(ask: ListAsk): string {
  const address = new URLSearchParams()
  const order = (clause: Clause) => ask.fields.findIndex((field) => field.name === clause.field)
  for (const clause of [...ask.clauses].sort((a, b) => order(a) - order(b))) address.set(clause.field, formatClause(clause))
  const usual = usualSort(ask.kind)
  if (ask.sort.field !== usual.field || ask.sort.down !== usual.down) address.set(SORT, `${ask.sort.down ? '-' : ''}${ask.sort.field}`)
  if (ask.group) address.set(GROUP, ask.group)
  if (ask.columns.join() !== USUAL_COLUMNS[ask.kind].join()) address.set(COLUMNS, ask.columns.join(','))
  if (ask.size !== '50') address.set(SIZE, ask.size)
  if (ask.compact) address.set(ROWS, 'compact')
  // Commas and colons are read as they stand, so they stand as they are read.
  return address.toString().replaceAll('%2C', ',').replaceAll('%21', '!')
}

/** The same list with one clause put in the place of any it had for that field. */
export function withClause(ask: ListAsk, clause: Clause): ListAsk {
  return { ...ask, clauses: [...ask.clauses.filter((one) => one.field !== clause.field), clause] }
}

/** The field an ask speaks of by its name, which {@link parseAsk} has seen to be there. */
export const askedField = (ask: Pick<ListAsk, 'fields'>, name: string): ListField => fieldIn(ask.fields, name)!

export function withoutField(ask: ListAsk, field: string): ListAsk {
  return { ...ask, clauses: ask.clauses.filter((one) => one.field !== field) }
}
