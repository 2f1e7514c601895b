import { and, like } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import { searchWords } from '#core/kit'

/** Every word of the search stands somewhere in the folded column; no words, no restriction. */
export function matchesWords(column: MySqlColumn, search: string | undefined): SQL | undefined {
  return and(...searchWords(search ?? '').map((word) => like(column, `%${word}%`)))
}
