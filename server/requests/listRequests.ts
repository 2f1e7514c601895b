import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { keysetPage, query, withinSites, wordsIn } from '#server/kit'
import { places, requests } from '../tables'
import { requestLinesOf } from './requestLine'
import { atIntake, atTriage } from './stations'

const KEYS = { id: requests.id, triageDueAt: requests.triageDueAt }
interface Key {
  id: number
  triageDueAt: Date
}
/** What is due first comes first. */
const DUE = {
  keys: [
    { column: requests.triageDueAt, read: (row: Key) => row.triageDueAt },
    { column: requests.id, read: (row: Key) => row.id },
  ],
  down: false,
}

export default query(contract.listRequests, async ({ db: plain, who, input, service }) => {
  const db = input.q ? service.searcher : plain
  const { words, number, reference } = {
    words: [requests.summary, requests.description, places.searchText],
    number: requests.number,
    reference: requests.outsideReference,
  }
  const where = and(
    input.station === 'intake' ? atIntake : input.station === 'triage' ? atTriage : undefined,
    input.state ? eq(requests.state, input.state) : undefined,
    input.placeId ? eq(requests.placeId, input.placeId) : undefined,
    input.assetId ? eq(requests.assetId, input.assetId) : undefined,
    input.q ? wordsIn(input.q, { words, number, reference }) : undefined,
    withinSites(who, requests.siteId),
  )
  return keysetPage({
    run: DUE,
    parts: [undefined],
    after: input.after,
    limit: input.limit ?? 50,
    readKeys: (part, order, most) =>
      db
        .select(KEYS)
        .from(requests)
        .leftJoin(places, eq(places.id, requests.placeId))
        .where(and(part, where))
        .orderBy(...order)
        .limit(most),
    readRows: (ids) => requestLinesOf(db, ids),
  })
})
