import { dayWords, isDay } from './days'
import { isAmount, isOfDays } from './shapes'
import type { AmountShape, ListField } from './shapes'

/** One thing asked of every row: a field and what it has to be. */
export interface Clause {
  field: string
  /** Turned round: none of them. */
  not?: boolean
  /** One of these: choices, ids, or the words themselves. `me` and `mine` stand for the person asking. */
  any?: string[]
  /** From and to, both counted in; either may be open. Days as written in {@link isDay}, amounts as {@link ListField} says. */
  from?: string
  to?: string
  /** Has nothing there (true) or something (false). */
  empty?: boolean
  /** The rows it is true of, where they are few and were found beforehand; no address holds them. */
  records?: number[]
}

const MOST_VALUES = 30

/**
 * A clause from the text after a field's name in an address: "ready,dispatched", "!closed", "-30d..today", "none", "any".
 * Null when the text says nothing this field can be asked.
 */
export function parseClause(field: ListField, text: string): Clause | null {
  const { name } = field
  if (!text || field.unasked) return null
  if (field.shape === 'words') return { field: name, any: [text] }
  if (field.shape === 'flag') return text === 'yes' || text === 'no' ? { field: name, any: [text] } : null
  if (field.empties && (text === 'none' || text === 'any')) return { field: name, empty: text === 'none' }
  if (field.shape === 'text') return text.startsWith('!') ? { field: name, not: true, any: [text.slice(1)] } : { field: name, any: [text] }
  if (isAmount(field.shape) || isOfDays(field.shape)) return parseSpan(field, text)
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

const WHOLE = /^\d{1,10}$/
const DECIMAL = /^-?\d{1,12}(\.\d{1,4})?$/

function parseSpan(field: ListField, text: string): Clause | null {
  const [from, to, more] = text.includes('..') ? text.split('..') : [text, text]
  const good = (end: string | undefined) => !end || (isOfDays(field.shape) ? isDay(end) : (field.shape === 'number' ? DECIMAL : WHOLE).test(end))
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
export function clauseWords(
  field: ListField,
  clause: Clause,
  name: (field: ListField, id: string) => string,
  amount: (shape: AmountShape, value: number) => string,
): string {
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
  const { shape } = field
  const end = (text: string) => (isAmount(shape) ? amount(shape, Number(text)) : dayWords(text))
  if (clause.from && clause.to) return say(clause.from === clause.to ? end(clause.from) : `${end(clause.from)} to ${end(clause.to)}`)
  return say(clause.from ? `from ${end(clause.from)}` : `up to ${end(clause.to!)}`)
}
