import { sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import type { Reader } from '#server/kit'
import { indexedWords, isOutOfTime, likeText } from '#server/kit'

/** The newest rows are looked through one by one first: common words are found there at once, where an index would count them all. */
const LOOKED_THROUGH = 15_000
/** The index may take this long over words that are common but hardly ever together. */
const MOST_SECONDS = 1.5

export interface WordAsk {
  table: MySqlTable
  id: MySqlColumn
  columns: MySqlColumn[]
  words: string[]
  where: SQL | undefined
  /** Only rows older than this one. */
  before: number | undefined
  limit: number
}

/**
 * Ids of the newest rows with all the words, each as a word begins. `partial` when the index gave up
 * before it had looked at everything.
 */
export async function newestWithWords(db: Reader, ask: WordAsk): Promise<{ ids: number[]; partial: boolean }> {
  const words = indexedWords(ask.words)
  if (!words.length) return { ids: [], partial: false }
  const recent = await lookThrough(db, ask, words)
  if (recent.length >= ask.limit) return { ids: recent.slice(0, ask.limit), partial: false }
  try {
    return { ids: await askIndex(db, ask, words), partial: false }
  } catch (error) {
    if (!isOutOfTime(error)) throw error
    return { ids: recent, partial: true }
  }
}

async function lookThrough(db: Reader, { table, id, columns, where, before, limit }: WordAsk, words: string[]): Promise<number[]> {
  const top = before === undefined ? sql`(select max(${id}) from ${table}) + 1` : sql`${before}`
  const text =
    columns.length > 1 ? sql`concat(${sql.join([sql`' '`, ...columns.flatMap((column) => [column, sql`' '`])], sql`, `)})` : sql`concat(' ', ${columns[0]!})`
  const has = words.map((word) => sql`${text} like ${`%${likeText(word)}%`}`)
  return idsOf(
    await db.execute(sql`select ${id} as id from ${table}
      where ${id} < ${top} and ${id} >= ${top} - ${LOOKED_THROUGH} and ${sql.join(has, sql` and `)} ${where ? sql`and ${where}` : sql``}
      order by ${id} desc limit ${limit}`),
  )
}

async function askIndex(db: Reader, { table, id, columns, where, before, limit }: WordAsk, words: string[]): Promise<number[]> {
  return idsOf(
    await db.execute(sql`set statement max_statement_time = ${sql.raw(String(MOST_SECONDS))} for select ${id} as id from ${table}
      where match (${sql.join(columns, sql`, `)}) against (${words.map((word) => `+${word}*`).join(' ')} in boolean mode)
      ${before === undefined ? sql`` : sql`and ${id} < ${before}`} ${where ? sql`and ${where}` : sql``}
      order by ${id} desc limit ${limit}`),
  )
}

const idsOf = (answer: unknown): number[] => (answer as [{ id: number }[]])[0].map((row) => Number(row.id))
