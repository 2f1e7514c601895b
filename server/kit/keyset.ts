import { ProblemReply } from './problems'

/** Where a page ended, as text a caller passes back unread. */
export function encodeCursor(values: (string | number)[]): string {
  return Buffer.from(JSON.stringify(values)).toString('base64url')
}

/** @throws ProblemReply when it did not come from {@link encodeCursor} with as many values */
export function decodeCursor(cursor: string, length: number): (string | number)[] {
  try {
    const values: unknown = JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8'))
    if (Array.isArray(values) && values.length === length && values.every((value) => ['string', 'number'].includes(typeof value)))
      return values as (string | number)[]
  } catch {
    // Falls through to the one answer for every unreadable cursor.
  }
  throw new ProblemReply(400, 'Not a page', 'The page asked for is not one that was offered. Start from the first page.', {
    reasons: [{ code: 'cursor', sentence: 'Start from the first page.', field: 'after' }],
  })
}
