import { foldText } from '#core/kit'

/** Words that say nothing about what is wrong. */
const EMPTY_WORDS = new Set([
  'the',
  'a',
  'an',
  'is',
  'in',
  'on',
  'at',
  'of',
  'and',
  'or',
  'to',
  'it',
  'its',
  'not',
  'does',
  'has',
  'have',
  'no',
  'from',
  'with',
  'there',
  'my',
  'our',
  'that',
  'this',
  'i',
  'me',
  'we',
  'you',
  'was',
  'were',
  'are',
  'be',
  'been',
  'by',
  'for',
  'but',
  'if',
  'so',
  'as',
  'since',
  'very',
])

/** A word without the ending that number or tense gives it: enough to see "drips" in "dripping". */
export const stem = (word: string) => (word.length > 4 ? word.replace(/(ing|ed|es|s)$/, '').replace(/(.)\1$/, '$1') : word)

/** The words of a text that say something, by their stems. */
export const tellingWords = (text: string): string[] =>
  foldText(text)
    .split(' ')
    .filter((word) => word && !EMPTY_WORDS.has(word))
    .map(stem)
const telling = (text: string) => new Set(tellingWords(text).slice(0, 12))

/** How alike two short texts are: the share of words in common (Jaccard), 0 to 1. */
export function likeness(a: string, b: string): number {
  const [left, right] = [telling(a), telling(b)]
  const common = [...left].filter((word) => right.has(word)).length
  const all = new Set([...left, ...right]).size
  return all ? common / all : 0
}

/** Those most alike first; with nothing to compare by, in the order given. */
export function rankTwins<Row extends { text: string }>(words: string, rows: readonly Row[]): Row[] {
  return rows
    .map((row, index) => ({ row, index, score: likeness(words, row.text) }))
    .sort((a, b) => b.score - a.score || a.index - b.index)
    .map(({ row }) => row)
}
