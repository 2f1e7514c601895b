import { asc, eq } from 'drizzle-orm'
import type { Conversation } from '#contract/requests'
import { recordEvent } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { attachments, comments } from '../tables'
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
      fromReporter: row.accountId === null && row.kind === 'message',
      author: row.authorName,
      text: row.text,
      quoted: row.quoted,
      at: row.at,
      files: files.filter((file) => file.commentId === row.id).map(({ commentId: _, ...file }) => file),
    })),
    reaches: reachedBy(request),
  }
}

/** The address a message to the reporter goes to. Those who follow, or told the same, have threads of their own. */
export const reachedBy = (request: Pick<RequestRecord, 'reporterEmail'>): string[] => (request.reporterEmail ? [request.reporterEmail] : [])

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

/**
 * Keeps what somebody else wrote into a reporter's thread, by mail from another address: for the desk alone,
 * under their own address, and never as the reporter's words.
 */
export async function hearSomebody(
  tx: Tx,
  request: RequestRecord,
  now: Date,
  said: { name: string; address: string; text: string; quoted: string | null },
): Promise<number> {
  const author = `${said.name === said.address ? '' : `${said.name}, `}${said.address} (not the reporter’s address)`.slice(0, 120)
  const [saved] = await tx
    .insert(comments)
    .values({ requestId: request.id, kind: 'note', accountId: null, authorName: author, text: said.text, quoted: said.quoted, at: now })
    .$returningId()
  await recordEvent(tx, { accountId: null, name: said.address.slice(0, 120) }, now, {
    kind: 'request.heard',
    siteId: request.siteId,
    requestId: request.id,
    reason: said.text,
    details: { by: 'mail', commentId: saved!.id, other: true },
  })
  return saved!.id
}
