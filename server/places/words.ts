import { and, like, or } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import { searchWords, splitCode } from '#core/kit'

/** Every word of the search stands somewhere in the folded column; no words, no restriction. */
export function matchesWords(column: MySqlColumn, search: string | undefined): SQL | undefined {
  return and(
    ...searchWords(search ?? '').map((word) =>
      splitCode(word) === word ? like(column, `%${word}%`) : or(like(column, `%${word}%`), like(column, `%${splitCode(word)}%`)),
    ),
  )
}
