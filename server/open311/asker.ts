import { and, asc, eq, isNull, lt, or } from 'drizzle-orm'
import { sha256 } from '#server/kit'
import type { Reader } from '#server/kit'
import type { SiteRecord } from '#server/requests'
import { apiKeys, sites } from '../tables'
import { StandardError } from './format'

const SEEN_EVERY_MS = 60_000

export type KeyRecord = typeof apiKeys.$inferSelect

/** The key of a program, when it sent one. @throws StandardError 403 when it is not known or was revoked */
export async function keyOf(db: Reader, key: string | undefined, now: Date): Promise<KeyRecord | null> {
  if (!key) return null
  const [found] = await db
    .select()
    .from(apiKeys)
    .where(and(eq(apiKeys.keyHash, sha256(key)), isNull(apiKeys.revokedAt)))
  if (!found) throw new StandardError(403, ['api_key is not known here, or was revoked.'])
  // Once a minute is close enough to see whether a key is still in use.
  const before = new Date(now.getTime() - SEEN_EVERY_MS)
  await db
    .update(apiKeys)
    .set({ lastUsedAt: now })
    .where(and(eq(apiKeys.id, found.id), or(isNull(apiKeys.lastUsedAt), lt(apiKeys.lastUsedAt, before))))
  return found
}

/** The site that is asked: the one named, the key's, or the only one there is. */
export async function jurisdictionOf(db: Reader, named: string | undefined, key: KeyRecord | null): Promise<SiteRecord> {
  if (named) {
    const [site] = await db.select().from(sites).where(eq(sites.code, named.toUpperCase()))
    if (!site) throw new StandardError(404, [`jurisdiction_id ${named} was not found.`])
    if (key && key.siteId !== site.id) throw new StandardError(403, [`api_key is not for jurisdiction_id ${site.code}.`])
    return site
  }
  const rows = await db
    .select()
    .from(sites)
    .where(key ? eq(sites.id, key.siteId) : undefined)
    .orderBy(asc(sites.id))
  if (rows.length === 1) return rows[0]!
  throw new StandardError(400, [`jurisdiction_id was not provided. It is one of ${rows.map((site) => site.code).join(', ')}.`])
}
