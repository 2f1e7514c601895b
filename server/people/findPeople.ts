import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import * as contract from '#contract/people'
import { people, places } from '../tables'
import { query, withinSites } from '#server/kit'
import { matchesWords } from '#server/places'

export default query(contract.findPeople, async ({ db, who, input }) => {
  const rows = await db
    .select({
      id: people.id,
      name: people.name,
      email: people.email,
      phone: people.phone,
      extension: people.extension,
      title: people.title,
      placeId: people.placeId,
      placeName: places.name,
      payerId: people.payerId,
    })
    .from(people)
    .leftJoin(places, eq(places.id, people.placeId))
    .where(and(matchesWords(people.searchText, input.q), isNull(people.retiredAt), withinSites(who, people.siteId)))
    .orderBy(sql`coalesce(${people.extension}, '') <> ${(input.q ?? '').trim()}`, asc(people.name))
    .limit(input.limit ?? 12)
  return { rows }
})
