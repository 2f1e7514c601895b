import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import { notFound, query, withinSites } from '#server/kit'
import { assets, places, sites } from '../tables'

/** The asset where the label names one; its place is only where it stood when the label was printed. */
export default query(contract.findScanned, async ({ db, who, input }) => {
  const [found] = input.asset
    ? await db
        .select({ id: assets.id })
        .from(assets)
        .innerJoin(sites, eq(sites.id, assets.siteId))
        .where(and(eq(sites.code, input.site), eq(assets.tag, input.asset), withinSites(who, sites.id)))
    : await db
        .select({ id: places.id })
        .from(places)
        .innerJoin(sites, eq(sites.id, places.siteId))
        .where(and(eq(sites.code, input.site), eq(places.code, input.place!), withinSites(who, sites.id)))
  if (!found) throw notFound(input.asset ? 'asset' : 'place')
  return { register: input.asset ? ('assets' as const) : ('places' as const), id: found.id }
})
