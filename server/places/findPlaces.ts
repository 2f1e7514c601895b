import { and, asc, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/places'
import { places } from '../tables'
import { query, withinSites } from '#server/kit'
import { namesAbove } from './namePlace'
import { matchesWords } from './words'

export default query(contract.findPlaces, async ({ db, who, input }) => {
  // Which ones is answered by the index place_find alone; only the rows shown are then read.
  const found = db
    .select({ id: places.id })
    .from(places)
    .where(and(matchesWords(places.searchText, input.q), isNull(places.retiredAt), withinSites(who, places.siteId)))
    .orderBy(asc(places.code))
    .limit(input.limit ?? 12)
    .as('found')
  const rows = await db
    .select({ id: places.id, kind: places.kind, code: places.code, name: places.name, payerId: places.payerId, path: places.path })
    .from(found)
    .innerJoin(places, eq(places.id, found.id))
    .orderBy(asc(places.code))
  const within = await namesAbove(db, rows)
  return { rows: rows.map(({ path: _, ...place }) => ({ ...place, within: within.get(place.id)! })) }
})
