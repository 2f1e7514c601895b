import { asc, eq } from 'drizzle-orm'
import type { NumberingSheet } from '#contract/setup'
import { withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { numberings, sites } from '../tables'

/** Where numbers have got to at the sites of this administrator. */
export async function readNumberingSheet(db: Reader, who: Asker): Promise<NumberingSheet> {
  const { siteId, series, prefix, next, digits } = numberings
  return {
    numberings: await db
      .select({ siteId, series, prefix, next, digits, siteCode: sites.code })
      .from(numberings)
      .innerJoin(sites, eq(sites.id, numberings.siteId))
      .where(withinSites(who, numberings.siteId))
      .orderBy(asc(sites.id)),
  }
}
