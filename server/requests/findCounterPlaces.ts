import { and, asc, eq, ne } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { query } from '#server/kit'
import { matchesWords, namesAbove } from '#server/places'
import { places } from '../tables'
import { siteByCode } from './siteByCode'

const MOST = 12

export default query(contract.findCounterPlaces, async ({ db, input }) => {
  const site = await siteByCode(db, input.site)
  if (!input.q) return { rows: [] }
  const rows = await db
    .select()
    .from(places)
    .where(and(eq(places.siteId, site.id), ne(places.kind, 'site'), matchesWords(places.searchText, input.q)))
    .orderBy(asc(places.code))
    .limit(MOST)
  const within = await namesAbove(db, rows)
  return { rows: rows.map(({ id, code, name }) => ({ id, code, name, within: within.get(id)! })) }
})
