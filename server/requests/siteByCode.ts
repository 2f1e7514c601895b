import { eq } from 'drizzle-orm'
import type { SiteContact } from '#contract/requests'
import { notFound } from '#server/kit'
import type { Reader } from '#server/kit'
import { sites } from '../tables'

export type SiteRecord = typeof sites.$inferSelect

/** @throws ProblemReply 404 when there is no such site */
export async function siteByCode(db: Reader, code: string): Promise<SiteRecord> {
  const [site] = await db.select().from(sites).where(eq(sites.code, code.toUpperCase()))
  if (!site) throw notFound('site')
  return site
}

/** How a stranger reaches the desk of a site. */
export function contactOf(site: SiteRecord): SiteContact {
  return { code: site.code, name: site.name, deskPhone: site.deskPhone, deskEmail: site.deskEmail }
}
