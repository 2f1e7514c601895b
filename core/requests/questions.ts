import { readDecimal } from '#core/kit'
import type { Reason } from '#core/kit'

export const QUESTION_KINDS = ['text', 'number', 'meter', 'choice', 'several', 'yes_no', 'date'] as const
export type QuestionKind = (typeof QUESTION_KINDS)[number]
export const QUESTION_KIND_NAMES: Record<QuestionKind, string> = {
  text: 'Words',
  number: 'A number with a unit',
  meter: 'A meter reading',
  choice: 'One of a list',
  several: 'Several of a list',
  yes_no: 'Yes or no',
  date: 'A day',
}

/** One question of a category's form. `code` never changes once it has been answered. */
export interface Question {
  code: string
  label: string
  kind: QuestionKind
  required: boolean
  /** Of a number or a meter reading: what it counts in, and between which values it is believable. */
  unit?: string
  least?: number | null
  most?: number | null
  /** Of a choice. */
  options?: string[]
  /** Asked only when an earlier yes-or-no or choice was answered like this. */
  when?: { code: string; is: string } | null
}

/** Answers by question code: words, a number, "yes" or "no", one of the options, or a day as 2026-11-23; of several of a list, those chosen. */
export type Answer = string | number | string[]
export type Answers = Record<string, Answer>

const isNumeric = (kind: QuestionKind) => kind === 'number' || kind === 'meter'
/** A number as people write it; a point or comma with what follows it as core reads every number. */
function numberIn(answer: Answer): number | null {
  if (Array.isArray(answer)) return null
  if (typeof answer === 'number') return Number.isFinite(answer) ? answer : null
  const { value } = readDecimal(answer, '.', 6)
  return value === undefined || value === null ? null : Number(value)
}
const given = (answer: Answer | undefined) => answer !== undefined && String(answer).trim() !== ''
/** What was chosen of a list; a single one may come as it is. */
const chosen = (answer: Answer): string[] => [
  ...new Set(
    [answer]
      .flat()
      .map((one) => String(one).trim())
      .filter(Boolean),
  ),
]

/** The questions that are relevant after these answers, in order. One that hangs on an unasked question is not asked either. */
export function askedQuestions(questions: readonly Question[], answers: Answers): Question[] {
  const asked: Question[] = []
  for (const question of questions) {
    const on = question.when
    if (!on || (asked.some((one) => one.code === on.code) && String(answers[on.code] ?? '') === on.is)) asked.push(question)
  }
  return asked
}

/** What is missing or wrong in the answers, one reason for each question, at field "answers.<code>". */
export function answerReasons(questions: readonly Question[], answers: Answers): Reason[] {
  return askedQuestions(questions, answers).flatMap((question) => {
    const wrong = wrongWith(question, answers[question.code])
    return wrong ? [{ code: 'answer', sentence: wrong, field: `answers.${question.code}` }] : []
  })
}

function wrongWith(question: Question, answer: Answer | undefined): string | null {
  if (!given(answer)) return question.required ? 'This is needed.' : null
  if (isNumeric(question.kind)) {
    const value = numberIn(answer!)
    const unit = question.unit ? ` ${question.unit}` : ''
    if (value === null) return 'Write a number.'
    if (typeof question.least === 'number' && value < question.least) return `Write a number of at least ${question.least}${unit}.`
    if (typeof question.most === 'number' && value > question.most) return `Write a number of at most ${question.most}${unit}.`
  }
  if (question.kind === 'several') return chosen(answer!).every((one) => question.options?.includes(one)) ? null : 'Choose among the values offered.'
  if (Array.isArray(answer)) return 'Give one answer.'
  if (question.kind === 'choice' && !question.options?.includes(String(answer))) return 'Choose one of the values offered.'
  if (question.kind === 'yes_no' && answer !== 'yes' && answer !== 'no') return 'Answer yes or no.'
  if (question.kind === 'date' && !isDay(String(answer))) return 'Write a day like 2026-11-23.'
  if (question.kind === 'text' && String(answer).length > 500) return 'Write at most 500 characters.'
  return null
}

function isDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false
  const at = new Date(`${text}T00:00:00Z`)
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(text)
}

/** Only what was asked and answered, numbers as numbers: what is kept. */
export function cleanAnswers(questions: readonly Question[], answers: Answers): Answers {
  return Object.fromEntries(
    askedQuestions(questions, answers)
      .filter((question) => given(answers[question.code]))
      .map((question) => [question.code, cleaned(question, answers[question.code]!)]),
  )
}

function cleaned(question: Question, answer: Answer): Answer {
  if (isNumeric(question.kind)) return numberIn(answer)!
  return question.kind === 'several' ? chosen(answer) : String(answer).trim()
}

/** An answer as people read it. */
export function answerText(question: Question, answer: Answer): string {
  if (Array.isArray(answer)) return answer.join(', ')
  if (question.kind === 'yes_no') return answer === 'yes' ? 'Yes' : 'No'
  return question.unit ? `${answer} ${question.unit}` : String(answer)
}

/** What keeps a form from being used: each reason at field "questions.<index>". */
export function formReasons(questions: readonly Question[]): Reason[] {
  const reasons: Reason[] = []
  questions.forEach((question, index) => {
    const say = (sentence: string) => reasons.push({ code: 'question', sentence, field: `questions.${index}` })
    const before = questions.slice(0, index)
    if (!question.label.trim()) say('Write the question.')
    if (!/^[a-z][a-z0-9_]{0,31}$/.test(question.code)) say('Give it a short name of small letters, digits and _, beginning with a letter.')
    if (before.some((one) => one.code === question.code)) say(`“${question.code}” is the short name of an earlier question.`)
    if ((question.kind === 'choice' || question.kind === 'several') && new Set(question.options?.map((one) => one.trim()).filter(Boolean)).size < 2)
      say('A list needs two different values or more.')
    if (typeof question.least === 'number' && typeof question.most === 'number' && question.least > question.most) say('The least is more than the most.')
    if (!question.when) return
    const on = before.find((one) => one.code === question.when!.code)
    if (!on) say('It can only hang on an earlier question.')
    else if (on.kind !== 'yes_no' && on.kind !== 'choice') say('It can only hang on a yes-or-no question or a list.')
    else if (on.kind === 'yes_no' ? !['yes', 'no'].includes(question.when.is) : !on.options?.includes(question.when.is))
      say(`“${question.when.is}” is not an answer to “${on.label}”.`)
  })
  return reasons
}
