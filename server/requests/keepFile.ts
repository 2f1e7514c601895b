import { and, eq, inArray, isNull } from 'drizzle-orm'
import type { KeptFile } from '#contract/requests'
import { refuse } from '#core/kit'
import { hangClaimed, keepAttachment, randomToken, sha256 } from '#server/kit'
import type { KeptContent, Tx } from '#server/kit'
import { attachments } from '../tables'

/** Keeps a file that hangs on nothing yet; whoever knows the claim may attach it. */
export async function keepFile(tx: Tx, siteId: number, file: KeptContent, now: Date): Promise<KeptFile> {
  const { kind, content, ...kept } = file
  const claim = randomToken()
  await keepAttachment(tx, { siteId, claimHash: sha256(claim), kind, content, ...kept, at: now })
  return { claim, kind, name: kept.name, width: kept.width, height: kept.height, bytes: kept.bytes }
}

/** Attaches what was sent ahead. @throws Refusal when a claim is unknown or used */
export async function attachClaimed(tx: Tx, siteId: number, claims: string[], to: { requestId: number; commentId?: number }): Promise<void> {
  if (!claims.length) return
  const rows = await tx
    .select({ id: attachments.id })
    .from(attachments)
    .where(and(inArray(attachments.claimHash, claims.map(sha256)), eq(attachments.siteId, siteId), isNull(attachments.requestId)))
  if (rows.length !== claims.length) refuse('file_gone', 'A photo or document is no longer here. Add it again.', 'fileClaims')
  await hangClaimed(
    tx,
    rows.map((row) => row.id),
    to,
  )
}
