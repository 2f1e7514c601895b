import { eq } from 'drizzle-orm'
import { maySee, notFound, randomToken, sha256 } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { apiKeys } from '../tables'

/** A key for a program. Only its hash is kept: what is answered here is not seen again. */
export async function makeKey(tx: Tx, who: Asker, now: Date, siteId: number, name: string): Promise<string> {
  const key = randomToken()
  await tx.insert(apiKeys).values({ siteId, name, keyHash: sha256(key), createdAt: now, createdBy: who.accountId })
  return key
}

/** Programs with this key are refused from now on. @throws ProblemReply 404 when it is not of a site of theirs */
export async function revokeKey(tx: Tx, who: Asker, now: Date, id: number): Promise<typeof apiKeys.$inferSelect> {
  const [key] = await tx.select().from(apiKeys).where(eq(apiKeys.id, id)).for('update')
  if (!key || !maySee(who, key.siteId)) throw notFound('key')
  if (!key.revokedAt) await tx.update(apiKeys).set({ revokedAt: now }).where(eq(apiKeys.id, key.id))
  return key
}
