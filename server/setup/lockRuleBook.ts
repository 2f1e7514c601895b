import { eq } from 'drizzle-orm'
import { conflict, notFound } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { ruleBooks, sites } from '../tables'
import { mustReach } from './reach'

/**
 * The rule book of a site, locked for this change, and its version counted on. A site that never
 * changed a rule has none yet: it is begun at version 0.
 * @throws ProblemReply 409 when somebody changed it since `version`
 */
export async function lockRuleBook(tx: Tx, who: Asker, siteId: number, version: number) {
  await mustReach(tx, who, siteId)
  const [site] = await tx.select().from(sites).where(eq(sites.id, siteId)).for('update')
  if (!site) throw notFound('site')
  await tx.insert(ruleBooks).ignore().values({ siteId, content: {}, version: 0 })
  const [row] = await tx.select().from(ruleBooks).where(eq(ruleBooks.siteId, siteId)).for('update')
  if (row!.version !== version) throw conflict(row!.version, [])
  await tx
    .update(ruleBooks)
    .set({ version: version + 1 })
    .where(eq(ruleBooks.siteId, siteId))
  return { site, content: row!.content }
}
