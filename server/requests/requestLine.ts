import { eq, inArray } from 'drizzle-orm'
import type { RequestLine } from '#contract/requests'
import type { Outgoing, Reader } from '#server/kit'
import { accounts, assets, categories, payers, people, places, requests } from '../tables'

const select = (db: Reader) =>
  db
    .select({
      id: requests.id,
      number: requests.number,
      version: requests.version,
      state: requests.state,
      channel: requests.channel,
      summary: requests.summary,
      priority: requests.priority,
      reporterName: requests.reporterName,
      reporterEmail: requests.reporterEmail,
      takenUpAt: requests.takenUpAt,
      receivedAt: requests.receivedAt,
      decidedAt: requests.decidedAt,
      triageCloseAt: requests.triageCloseAt,
      triageDueAt: requests.triageDueAt,
      wish: requests.wish,
      outsideReference: requests.outsideReference,
      placeCode: places.code,
      placeName: places.name,
      asset: assets.tag,
      category: categories.name,
      payer: payers.code,
      takenUpBy: people.name,
    })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .leftJoin(assets, eq(assets.id, requests.assetId))
    .leftJoin(categories, eq(categories.id, requests.categoryId))
    .leftJoin(payers, eq(payers.id, requests.payerId))
    .leftJoin(accounts, eq(accounts.id, requests.takenUpBy))
    .leftJoin(people, eq(people.id, accounts.personId))
    .$dynamic()
/** These requests as queues and lists show them, in any order. */
export async function requestLinesOf(db: Reader, ids: number[]): Promise<Outgoing<RequestLine>[]> {
  return (await select(db).where(inArray(requests.id, ids))).map(toLine)
}

type Found = Awaited<ReturnType<typeof select>>[number]

/** The gauge of a request: from its arrival to when it is to be decided. */
export const requestTarget = (row: Pick<Found, 'receivedAt' | 'triageDueAt' | 'triageCloseAt' | 'decidedAt'>) => ({
  clock: 'working',
  startAt: row.receivedAt,
  responseDueAt: row.triageDueAt,
  closeAt: row.triageCloseAt,
  completionDueAt: row.triageDueAt,
  stoppedAt: null,
  finishedAt: row.decidedAt,
})

function toLine(row: Found): Outgoing<RequestLine> {
  return {
    id: row.id,
    number: row.number,
    version: row.version,
    state: row.state,
    takenUp: row.takenUpAt !== null,
    channel: row.channel,
    summary: row.summary,
    target: requestTarget(row),
    priority: row.priority,
    place: row.placeCode,
    placeName: row.placeName,
    asset: row.asset,
    category: row.category,
    payer: row.payer,
    reporter: row.reporterName ?? row.reporterEmail,
    takenup: row.takenUpBy,
    received: row.receivedAt,
    due: row.triageDueAt,
    decided: row.decidedAt,
    wish: row.wish,
    reference: row.outsideReference,
  }
}
