import { and, like, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import { numbersAsked, searchWords } from '#core/kit'

/**
 * Words InnoDB's full-text index leaves out by default, and those it finds too short (both as in its
 * manual, from memory): asking for them would find nothing.
 */
const LEFT_OUT = new Set(
  'a about an are as at be by com de en for from how i in is it la of on or that the this to was what when where who will with und www'.split(' '),
)
const SHORTEST = 3

/** The words a full-text index can be asked for. */
export const indexedWords = (words: string[]): string[] => words.filter((word) => word.length >= SHORTEST && !LEFT_OUT.has(word))

/** Text for LIKE in which the signs that stand for anything stand for themselves. */
export const likeText = (text: string) => text.replace(/[\\%_]/g, (sign) => `\\${sign}`)

/**
 * What a list, a queue or the search finds for words: a number or a reference that begins so, or rows with all
 * the words, each as a word begins. Words the index leaves out say nothing and are left out here too; where
 * nothing else is left, the rows are looked through for them.
 */
export function wordsFound(text: string, { words: columns, number, reference }: { words: MySqlColumn[]; number: MySqlColumn; reference: MySqlColumn }): SQL {
  const asked = searchWords(text)
  const indexed = indexedWords(asked)
  const all = indexed.length
    ? sql`match (${sql.join(columns, sql`, `)}) against (${indexed.map((word) => `+${word}*`).join(' ')} in boolean mode)`
    : asked.length
      ? lookedThrough(columns, asked)
      : sql`1 = 0`
  return or(all, isNumbered(number, text), like(reference, `${likeText(text.trim())}%`))!
}

/** The same by looking at each row: for queues, which hold few, and for words no index has. */
export function wordsIn(text: string, { words: columns, number, reference }: { words: MySqlColumn[]; number: MySqlColumn; reference: MySqlColumn }): SQL {
  const asked = searchWords(text)
  const telling = indexedWords(asked)
  const looked = asked.length ? lookedThrough(columns, telling.length ? telling : asked) : undefined
  return or(looked, isNumbered(number, text, '%'), like(reference, `${likeText(text.trim())}%`))!
}

/** Rows whose number begins as was asked, however it was typed. */
function isNumbered(number: MySqlColumn, text: string, before = ''): SQL | undefined {
  const asked = numbersAsked(text)
  return or(...(asked.length ? asked : [text.trim()]).map((one) => like(number, `${before}${likeText(one)}%`)))
}

function lookedThrough(columns: MySqlColumn[], words: string[]): SQL {
  const text = sql`concat(${sql.join([sql`' '`, ...columns.flatMap((column) => [sql`coalesce(${column}, '')`, sql`' '`])], sql`, `)})`
  return and(...words.map((word) => sql`${text} like ${`%${likeText(word)}%`}`))!
}
