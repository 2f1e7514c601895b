import { and, asc, eq, gt, gte, isNull, lt, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import * as contract from '#contract/documents'
import { USUAL_REMIND_DAYS } from '#core/documents'
import type { DocumentStanding } from '#core/documents'
import { searchWords } from '#core/kit'
import { decodeCursor, encodeCursor, indexedWords, query } from '#server/kit'
import { documents } from '../tables'
import { documentRows } from './documentRows'
import { todayAt } from './today'

/** Beyond every end there may be: documents without one come last. */
const NO_END = '9999-12-31'
const end = sql<string>`coalesce(${documents.validUntil}, ${NO_END})`

export default query(contract.listDocuments, async ({ db, who, input, now }) => {
  const today = await todayAt(db, null, now)
  const limit = input.limit ?? 50
  const [afterEnd, afterId] = input.after ? (decodeCursor(input.after, ['text', 'integer']) as [string, number]) : []
  const words = indexedWords(searchWords(input.q ?? ''))
  const where = and(
    isNull(documents.retiredAt),
    input.kind ? eq(documents.kind, input.kind) : undefined,
    input.standing ? STANDS[input.standing](today) : undefined,
    words.length ? sql`match (${documents.words}) against (${words.map((word) => `+${word}*`).join(' ')} in boolean mode)` : undefined,
    afterEnd === undefined ? undefined : or(sql`${end} > ${afterEnd}`, and(sql`${end} = ${afterEnd}`, gt(documents.id, afterId!))),
  )
  const rows = await documentRows(db, who, today, where, [sql`${end}`, asc(documents.id)], limit + 1)
  const page = rows.slice(0, limit)
  const last = page.at(-1)
  return { rows: page, next: rows.length > limit && last ? encodeCursor([String(last.validUntil ?? NO_END), last.id]) : null }
})

const remind = sql`coalesce(${documents.remindDays}, ${USUAL_REMIND_DAYS})`
/** The same as `documentStanding` of core says of one. */
const STANDS: Record<DocumentStanding, (today: string) => SQL | undefined> = {
  ended: (today) => lt(documents.validUntil, today),
  coming: (today) => and(gt(documents.validFrom, today), or(isNull(documents.validUntil), gte(documents.validUntil, today))),
  ending: (today) => and(begun(today), gte(documents.validUntil, today), sql`date_sub(${documents.validUntil}, interval ${remind} day) <= ${today}`),
  valid: (today) => and(begun(today), or(isNull(documents.validUntil), sql`date_sub(${documents.validUntil}, interval ${remind} day) > ${today}`)),
}
const begun = (today: string) => or(isNull(documents.validFrom), sql`${documents.validFrom} <= ${today}`)
