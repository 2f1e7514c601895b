import { DateTime } from 'luxon'
import { refuse } from '#core/kit'
import type { Progress } from './progress'
import type { Answers, Question } from './questions'

/**
 * Rules of Open311 GeoReport v2 (published open standard, wiki.open311.org/GeoReport_v2; field names from memory).
 * Our categories are its services, our category questions its attributes.
 */

/** One attribute of a service definition, in the order of the standard's example. */
export interface ServiceAttribute {
  variable: true
  code: string
  datatype: 'string' | 'number' | 'datetime' | 'text' | 'singlevaluelist' | 'multivaluelist'
  required: boolean
  datatype_description: string | null
  order: number
  description: string
  values?: { key: string; name: string }[]
}

const DATATYPES: Record<Question['kind'], ServiceAttribute['datatype']> = {
  text: 'text',
  number: 'number',
  meter: 'number',
  choice: 'singlevaluelist',
  several: 'multivaluelist',
  yes_no: 'singlevaluelist',
  date: 'datetime',
}

/** Category questions as the standard has them. One that hangs on another answer is never required of a program. */
export function attributesOf(questions: readonly Question[]): ServiceAttribute[] {
  return questions.map((question, index) => ({
    variable: true,
    code: question.code,
    datatype: DATATYPES[question.kind],
    required: question.required && !question.when,
    datatype_description: limitsOf(question, questions),
    order: index + 1,
    description: question.label,
    ...valuesOf(question),
  }))
}

function valuesOf(question: Question): Pick<ServiceAttribute, 'values'> {
  const keys = question.kind === 'yes_no' ? ['yes', 'no'] : question.kind === 'choice' || question.kind === 'several' ? (question.options ?? []) : null
  return keys ? { values: keys.map((key) => ({ key, name: key })) } : {}
}

function limitsOf(question: Question, all: readonly Question[]): string | null {
  const limits = [
    question.unit ? `in ${question.unit}` : '',
    typeof question.least === 'number' ? `at least ${question.least}` : '',
    typeof question.most === 'number' ? `at most ${question.most}` : '',
  ].filter(Boolean)
  const on = question.when && all.find((one) => one.code === question.when!.code)
  if (on) limits.push(`when “${on.label}” is ${question.when!.is}`)
  return limits.length ? limits.join(', ') : null
}

/** What a program sent for the attributes, as answers to our questions. A datetime is kept as its day in the zone. */
export function answersFromAttributes(questions: readonly Question[], sent: Record<string, string | string[]>, zone: string): Answers {
  const answers: Answers = {}
  for (const question of questions) {
    const given = [sent[question.code] ?? []]
      .flat()
      .map((one) => one.trim())
      .filter(Boolean)
    if (!given.length) continue
    if (question.kind === 'several') {
      answers[question.code] = given
      continue
    }
    const value = given.join(', ')
    const at = question.kind === 'date' ? DateTime.fromISO(value, { zone }) : null
    answers[question.code] = at?.isValid ? at.toISODate() : value
  }
  return answers
}

/** Open until done or turned down, as the standard's two states have it. */
export const reportStatus = (step: Progress['step']): 'open' | 'closed' => (step === 'done' || step === 'closed' ? 'closed' : 'open')

/** The standard's longest span of a search. */
export const MOST_DAYS = 90
const DAY_MS = 86_400_000

/**
 * The span of a search: at most 90 days, ending now when nothing else is said.
 * @throws Refusal when a date cannot be read or the end is before the start
 */
export function spanOf(start: string | undefined, end: string | undefined, now: Date): { from: Date; to: Date } {
  const read = (text: string, field: string) => {
    const at = DateTime.fromISO(text, { zone: 'utc' })
    return at.isValid && at.year >= 1970 && at.year < 3000
      ? at.toJSDate()
      : refuse('date', `${field} is no W3C date and time like 2026-11-23T10:30:00Z.`, field)
  }
  const from = start ? read(start, 'start_date') : null
  const to = end ? read(end, 'end_date') : from ? new Date(Math.min(now.getTime(), from.getTime() + MOST_DAYS * DAY_MS)) : now
  const begin = from ?? new Date(to.getTime() - MOST_DAYS * DAY_MS)
  if (to < begin) refuse('dates', 'end_date is before start_date.', 'end_date')
  return { from: new Date(Math.max(begin.getTime(), to.getTime() - MOST_DAYS * DAY_MS)), to }
}
