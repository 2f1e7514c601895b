import { DateTime } from 'luxon'
import { cleanText } from '#core/kit'
import { MOST_TEXT } from './fields'
import type { OwnField, OwnValue } from './fields'

/** Numbers are kept with four decimals and twelve digits before them. */
const MOST_NUMBER = 1e12
const DECIMALS = 4

export type ReadOwn = { value: OwnValue } | { problem: string }

/** What was sent for a field as it is kept, or why it cannot be. Nothing, and a text of blanks, empties it. */
export function readOwnValue(field: Pick<OwnField, 'shape' | 'choices'>, sent: unknown): ReadOwn {
  if (sent === null || sent === undefined || (typeof sent === 'string' && !sent.trim())) return { value: null }
  switch (field.shape) {
    case 'text':
      return readText(sent)
    case 'link':
      return readLink(sent)
    case 'choice':
      return field.choices.some((choice) => choice.key === sent) ? { value: String(sent) } : { problem: 'Choose one of the values offered.' }
    case 'number':
      return readNumber(sent)
    case 'flag':
      return sent === 1 || sent === 0 ? { value: sent } : { problem: 'Say yes or no.' }
    case 'person':
      return Number.isInteger(sent) && Number(sent) > 0 ? { value: Number(sent) } : { problem: 'Choose a person from the list.' }
    case 'date':
      return typeof sent === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(sent) && DateTime.fromISO(sent).isValid && sent >= '1900' && sent < '3000'
        ? { value: sent }
        : { problem: 'Write a day of the calendar.' }
  }
}

function readText(sent: unknown): ReadOwn {
  const text = cleanText(String(sent)).trim()
  return text.length <= MOST_TEXT ? { value: text || null } : { problem: `Write at most ${MOST_TEXT} characters.` }
}

/** An address of the web or of mail: nothing a browser would run. */
function readLink(sent: unknown): ReadOwn {
  const text = cleanText(String(sent)).trim()
  if (text.length > MOST_TEXT) return { problem: `Write at most ${MOST_TEXT} characters.` }
  const url = URL.canParse(text) ? new URL(text) : null
  if (!url || !['http:', 'https:', 'mailto:'].includes(url.protocol)) return { problem: 'Write an address like https://place.example/page.' }
  return { value: text }
}

function readNumber(sent: unknown): ReadOwn {
  const number = typeof sent === 'number' ? sent : typeof sent === 'string' && /^-?\d{1,12}(\.\d+)?$/.test(sent.trim()) ? Number(sent) : Number.NaN
  if (!Number.isFinite(number) || Math.abs(number) >= MOST_NUMBER) return { problem: 'Write a number.' }
  const factor = 10 ** DECIMALS
  return { value: Math.round(number * factor) / factor }
}

/** A value in words, for mails, tables and readers of the timeline; `person` names who an id stands for. */
export function ownSays(
  field: Pick<OwnField, 'shape' | 'choices' | 'unit'>,
  value: OwnValue,
  person: (id: number) => string,
  day: (day: string) => string,
): string {
  if (value === null) return ''
  if (field.shape === 'choice') return field.choices.find((choice) => choice.key === value)?.name ?? String(value)
  if (field.shape === 'flag') return value === 1 ? 'Yes' : 'No'
  if (field.shape === 'person') return person(Number(value))
  if (field.shape === 'date') return day(String(value))
  return [String(value), field.shape === 'number' ? field.unit : null].filter(Boolean).join(' ')
}

/** A choice made new: a key no other has, from its name. */
export function choiceKey(name: string, taken: readonly string[]): string {
  const base =
    name
      .normalize('NFD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '_')
      .replace(/^_+|_+$/g, '')
      .slice(0, 20) || 'choice'
  for (let round = 1; ; round++) {
    const key = round === 1 ? base : `${base}_${round}`
    // These two words mean nothing and anything where a list is asked.
    if (!taken.includes(key) && key !== 'none' && key !== 'any') return key
  }
}
