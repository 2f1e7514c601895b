import { asc, eq } from 'drizzle-orm'
import type { Conversation } from '#contract/requests'
import { recordEvent } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { attachments, comments, followers, requests, sites } from '../tables'
import type { RequestRecord } from './facts'

/** What was said about a request, oldest first, and who a message would reach. */
export async function conversationOf(db: Reader, request: RequestRecord): Promise<Outgoing<Conversation>> {
  const rows = await db.select().from(comments).where(eq(comments.requestId, request.id)).orderBy(asc(comments.id))
  const files = rows.length
    ? await db
        .select({ id: attachments.id, name: attachments.name, kind: attachments.kind, commentId: attachments.commentId })
        .from(attachments)
        .where(eq(attachments.requestId, request.id))
    : []
  return {
    rows: rows.map((row) => ({
      id: row.id,
      kind: row.kind,
      fromReporter: row.accountId === null,
      author: row.authorName,
      text: row.text,
      quoted: row.quoted,
      at: row.at,
      files: files.filter((file) => file.commentId === row.id).map(({ commentId: _, ...file }) => file),
    })),
    reaches: await reachedBy(db, request),
  }
}

/** The addresses a message to the reporter goes to: theirs and, where the site shares messages, those who told the same. */
export async function reachedBy(db: Reader, request: RequestRecord): Promise<string[]> {
  const [site] = await db.select({ shared: sites.sharedMessages }).from(sites).where(eq(sites.id, request.siteId))
  const own = request.reporterEmail ? [request.reporterEmail] : []
  if (!site?.shared) return own
  const joined = await db.select({ email: requests.reporterEmail }).from(requests).where(eq(requests.joinedToId, request.id))
  const following = await db.select({ email: followers.email }).from(followers).where(eq(followers.requestId, request.id))
  return [...new Set([...own, ...[...joined, ...following].flatMap((row) => (row.email ? [row.email] : []))])]
}

/** Keeps what the reporter wrote, by page or by mail, and tells the desk. */
export async function hearReporter(
  tx: Tx,
  request: RequestRecord,
  now: Date,
  said: { name: string; text: string; quoted?: string | null; by: 'page' | 'mail' },
): Promise<number> {
  const [saved] = await tx
    .insert(comments)
    .values({ requestId: request.id, kind: 'message', accountId: null, authorName: said.name, text: said.text, quoted: said.quoted ?? null, at: now })
    .$returningId()
  await recordEvent(tx, { accountId: null, name: said.name }, now, {
    kind: 'request.heard',
    siteId: request.siteId,
    requestId: request.id,
    reason: said.text,
    details: { by: said.by, commentId: saved!.id },
  })
  return saved!.id
}

export type Author = Pick<Asker, 'accountId' | 'name'>
