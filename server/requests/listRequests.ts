import { and, asc, eq, sql } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { decodeCursor, encodeCursor, query, withinSites, wordsIn } from '#server/kit'
import { places, requests } from '../tables'
import { atIntake, atTriage } from './stations'

export default query(contract.listRequests, async ({ db: plain, who, input, service }) => {
  const db = input.q ? service.searcher : plain
  const limit = input.limit ?? 50
  const after = input.after ? decodeCursor(input.after, ['instant', 'integer']) : null
  const rows = await db
    .select({ request: requests, placeCode: places.code, placeName: places.name })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .where(
      and(
        input.station === 'intake' ? atIntake : input.station === 'triage' ? atTriage : undefined,
        input.state ? eq(requests.state, input.state) : undefined,
        input.placeId ? eq(requests.placeId, input.placeId) : undefined,
        input.assetId ? eq(requests.assetId, input.assetId) : undefined,
        input.q
          ? wordsIn(input.q, {
              words: [requests.summary, requests.description, places.searchText],
              number: requests.number,
              reference: requests.outsideReference,
            })
          : undefined,
        withinSites(who, requests.siteId),
        after ? sql`(${requests.triageDueAt}, ${requests.id}) > (${String(after[0]).replace('T', ' ').replace('Z', '')}, ${after[1]})` : undefined,
      ),
    )
    .orderBy(asc(requests.triageDueAt), asc(requests.id))
    .limit(limit + 1)
  const page = rows.slice(0, limit)
  const last = page.at(-1)?.request
  return {
    rows: page.map(({ request, placeCode, placeName }) => ({
      id: request.id,
      number: request.number,
      state: request.state,
      summary: request.summary,
      placeCode,
      placeName,
      priority: request.priority,
      channel: request.channel,
      reporterName: request.reporterName,
      receivedAt: request.receivedAt,
      closeAt: request.triageCloseAt,
      dueAt: request.triageDueAt,
    })),
    next: rows.length > limit && last ? encodeCursor([last.triageDueAt.toISOString(), last.id]) : null,
  }
})
