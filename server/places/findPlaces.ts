import { and, asc } from 'drizzle-orm'
import * as contract from '#contract/places'
import { places } from '../tables'
import { query, withinSites } from '#server/kit'
import { namesAbove } from './namePlace'
import { matchesWords } from './words'

export default query(contract.findPlaces, async ({ db, who, input }) => {
  const rows = await db
    .select({ id: places.id, kind: places.kind, code: places.code, name: places.name, payerId: places.payerId, path: places.path })
    .from(places)
    .where(and(matchesWords(places.searchText, input.q), withinSites(who, places.siteId)))
    .orderBy(asc(places.code))
    .limit(input.limit ?? 12)
  const within = await namesAbove(db, rows)
  return { rows: rows.map(({ path: _, ...place }) => ({ ...place, within: within.get(place.id)! })) }
})
