import { maySee, notFound, ProblemReply } from '#server/kit'
import type { Asker } from '#server/kit'

/** @throws ProblemReply 404 when this administrator does not act at the site */
export function mustReach(who: Asker, siteId: number, what = 'site'): void {
  if (!maySee(who, siteId)) throw notFound(what)
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
