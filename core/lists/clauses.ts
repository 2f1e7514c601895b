import { dayWords, isDay } from './days'
import { listField } from './fields'
import type { ListField, ListKind } from './fields'

/** One thing asked of every row: a field and what it has to be. */
export interface Clause {
  field: string
  /** Turned round: none of them. */
  not?: boolean
  /** One of these: choices, ids, or the words themselves. `me` and `mine` stand for the person asking. */
  any?: string[]
  /** From and to, both counted in; either may be open. Days as written in {@link isDay}, money in minor units. */
  from?: string
  to?: string
  /** Has nothing there (true) or something (false). */
  empty?: boolean
}

const MOST_VALUES = 30

/**
 * A clause from the text after a field's name in an address: "ready,dispatched", "!closed", "-30d..today", "none", "any".
 * Null when the text says nothing this field can be asked.
 */
export function parseClause(kind: ListKind, name: string, text: string): Clause | null {
  const field = listField(kind, name)
  if (!field || !text) return null
  if (field.shape === 'words') return { field: name, any: [text] }
  if (field.shape === 'flag') return text === 'yes' || text === 'no' ? { field: name, any: [text] } : null
  if (field.empties && (text === 'none' || text === 'any')) return { field: name, empty: text === 'none' }
  if (field.shape === 'text') return text.startsWith('!') ? { field: name, not: true, any: [text.slice(1)] } : { field: name, any: [text] }
  if (field.shape === 'day' || field.shape === 'money') return parseSpan(field, text)
  const not = text.startsWith('!')
  const any = [...new Set((not ? text.slice(1) : text).split(','))].slice(0, MOST_VALUES)
  if (!any.length || !any.every((value) => isValue(field, value))) return null
  return { field: name, ...(not ? { not } : {}), any }
}

function isValue(field: ListField, value: string): boolean {
  if (field.shape === 'choice') return Object.hasOwn(field.choices!, value)
  if (value === 'me') return field.register === 'account'
  if (value === 'mine') return field.register === 'team'
  return /^[1-9]\d{0,8}$/.test(value)
}

function parseSpan(field: ListField, text: string): Clause | null {
  const [from, to, more] = text.includes('..') ? text.split('..') : [text, text]
  const good = (end: string | undefined) => !end || (field.shape === 'day' ? isDay(end) : /^\d{1,10}$/.test(end))
  if (more !== undefined || (!from && !to) || !good(from) || !good(to)) return null
  return { field: field.name, ...(from ? { from } : {}), ...(to ? { to } : {}) }
}

/** The clause as it stands in an address; {@link parseClause} reads it back. */
export function formatClause(clause: Clause): string {
  if (clause.empty !== undefined) return clause.empty ? 'none' : 'any'
  if (clause.any) return `${clause.not ? '!' : ''}${clause.any.join(',')}`
  if (clause.from === clause.to) return clause.from!
  return `${clause.from ?? ''}..${clause.to ?? ''}`
}

/** A clause as a chip says it: "State: Ready or Dispatched", "Finished: from 30 days ago". */
export function clauseWords(kind: ListKind, clause: Clause, name: (field: ListField, id: string) => string, money: (minor: number) => string): string {
  const field = listField(kind, clause.field)!
  const say = (words: string) => `${field.label}: ${words}`
  if (clause.empty !== undefined) return say(clause.empty ? 'none' : 'any')
  if (field.shape === 'flag') return say(clause.any![0]!)
  if (field.shape === 'words') return say(`“${clause.any![0]}”`)
  if (field.shape === 'text') return say(`${clause.not ? 'without' : 'with'} “${clause.any![0]}”`)
  if (clause.any) {
    const values = clause.any.map((value) => (field.shape === 'choice' ? field.choices![value]! : name(field, value)))
    const list = values.length > 1 ? `${values.slice(0, -1).join(', ')} ${clause.not ? 'nor' : 'or'} ${values.at(-1)}` : values[0]!
    return say(clause.not ? `not ${list}` : list)
  }
  const end = (text: string) => (field.shape === 'day' ? dayWords(text) : money(Number(text)))
  if (clause.from && clause.to) return say(clause.from === clause.to ? end(clause.from) : `${end(clause.from)} to ${end(clause.to)}`)
  return say(clause.from ? `from ${end(clause.from)}` : `up to ${end(clause.to!)}`)
}
