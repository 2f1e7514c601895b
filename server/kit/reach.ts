import { eq } from 'drizzle-orm'
import type { Grant } from '#core/people'
import type { Reader } from './database'
import { notFound, ProblemReply } from './problems'
import { maySee } from './who'
import type { Asker } from './who'
import { sites } from '../tables'

/** @throws ProblemReply 404 when there is no such site, or this administrator does not act there */
export async function mustReach(db: Reader, who: Asker, siteId: number, what = 'site'): Promise<void> {
  const [site] = maySee(who, siteId) ? await db.select({ id: sites.id }).from(sites).where(eq(sites.id, siteId)) : []
  if (!site) throw notFound(what)
}

/** What holds at every site is for those who administer every site. @throws ProblemReply 403 */
export function mustReachAll(who: Asker): void {
  if (who.siteIds !== null)
    throw new ProblemReply(
      403,
      'Not allowed',
      'This holds at every site, and you administer some of them. Nothing was changed; ask an administrator of all sites.',
    )
}

/** An administrator sees the accounts of their sites: those at home there, and those with a role there. */
export function reaches(who: Asker, homeSiteId: number, grants: readonly Grant[]): boolean {
  return who.siteIds === null || who.siteIds.includes(homeSiteId) || grants.some((grant) => grant.siteId !== null && who.siteIds!.includes(grant.siteId))
}
