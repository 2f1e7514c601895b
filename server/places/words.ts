import { and, like, or } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import { searchWords, splitCode } from '#core/kit'

/** Numbers are rarer than words, long words than short ones: what is looked for first rules out most rows. */
const rarestFirst = (words: string[]) => [...words].sort((a, b) => Number(/\d/.test(b)) - Number(/\d/.test(a)) || b.length - a.length)

/** Every word of the search stands somewhere in the folded column; no words, no restriction. */
export function matchesWords(column: MySqlColumn, search: string | undefined): SQL | undefined {
  return and(
    ...rarestFirst(searchWords(search ?? '')).map((word) =>
      splitCode(word) === word ? like(column, `%${word}%`) : or(like(column, `%${word}%`), like(column, `%${splitCode(word)}%`)),
    ),
  )
}
