import { eq } from 'drizzle-orm'
import type { CounterSite } from '#contract/requests'
import { notFound } from '#server/kit'
import type { Reader } from '#server/kit'
import { sites } from '../tables'

/** @throws ProblemReply 404 when there is no such site */
export async function siteByCode(db: Reader, code: string) {
  const [site] = await db.select().from(sites).where(eq(sites.code, code.toUpperCase()))
  if (!site) throw notFound('site')
  return site
}

/** What a stranger may know of a site. */
export function counterSite(site: typeof sites.$inferSelect): CounterSite {
  return { code: site.code, name: site.name, deskPhone: site.deskPhone, deskEmail: site.deskEmail }
}
