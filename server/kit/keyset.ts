import { ProblemReply } from './problems'

/** What stands at a place of a cursor. */
export type CursorPart = 'instant' | 'integer' | 'number' | 'text' | 'nothing'

/** Where a page ended, as text a caller passes back unread. */
export function encodeCursor(values: (string | number)[]): string {
  return Buffer.from(JSON.stringify(values)).toString('base64url')
}

/** @throws ProblemReply when it did not come from {@link encodeCursor} with values of these kinds */
export function decodeCursor(cursor: string, parts: readonly CursorPart[]): (string | number)[] {
  try {
    const values: unknown = JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8'))
    if (Array.isArray(values) && values.length === parts.length && parts.every((part, index) => isPart(values[index], part)))
      return values as (string | number)[]
  } catch {
    // Falls through to the one answer for every unreadable cursor.
  }
  throw notAPage()
}

export const notAPage = () =>
  new ProblemReply(400, 'Not a page', 'The page asked for is not one that was offered. Start from the first page.', {
    reasons: [{ code: 'cursor', sentence: 'Start from the first page.', field: 'after' }],
  })

/** An instant as a cursor holds it, of the centuries a column holds. */
const INSTANT = /^[12]\d{3}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/

function isPart(value: unknown, part: CursorPart): boolean {
  if (part === 'integer') return Number.isSafeInteger(value)
  if (part === 'number') return Number.isFinite(value)
  if (part === 'nothing') return value === ''
  if (typeof value !== 'string') return false
  return part === 'text' ? value.length <= 500 : INSTANT.test(value) && !Number.isNaN(Date.parse(value))
}
