import { and, eq, isNotNull, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { Page } from '#contract/kit'
import type { RequestLine } from '#contract/requests'
import { askedField } from '#core/lists'
import type { ListAsk, ListField } from '#core/lists'
import { REQUEST_STATES } from '#core/requests'
import { keysetPage, withinSites, wordsFound } from '#server/kit'
import type { Outgoing, Reader, Run } from '#server/kit'
import { requestLinesOf } from '#server/requests'
import { places, requests } from '../tables'
import { allConditions, byDay, byFlag, byPlace, byStanding, byText, byValue } from './conditions'
import type { Condition } from './conditions'
import { isNamed, ownColumn, ownCondition, ownKeys, ownLead, withOwn } from './own'
import type { WithOwn } from '#contract/lists'
import type { Standpoint } from './standpoint'

export const REQUEST_CONDITIONS: Record<string, Condition> = {
  words: (clause) =>
    wordsFound(clause.any![0]!, { words: [requests.summary, requests.description], number: requests.number, reference: requests.outsideReference }),
  number: byText(requests.number),
  summary: byText(requests.summary),
  state: byValue(requests.state),
  standing: byStanding({
    closeAt: requests.triageCloseAt,
    completionDueAt: requests.triageDueAt,
    at: (now) => sql`coalesce(${requests.decidedAt}, ${now})`,
  }),
  channel: byValue(requests.channel),
  priority: byValue(requests.priority),
  place: byPlace(requests.placeId),
  asset: byValue(requests.assetId),
  category: byValue(requests.categoryId),
  payer: byValue(requests.payerId),
  reporter: byText(requests.reporterName, requests.reporterEmail),
  takenup: byValue(requests.takenUpBy),
  received: byDay(requests.receivedAt),
  due: byDay(requests.triageDueAt),
  decided: byDay(requests.decidedAt),
  consequence: byValue(requests.consequence),
  urgency: byValue(requests.urgency),
  wish: byText(requests.wish),
  reference: byText(requests.outsideReference),
  repeats: byFlag(() => isNotNull(requests.repeatsId)),
}

/** What a list of requests can run by. */
const KEYS = {
  priorityRank: requests.priorityRank,
  placeCode: places.code,
  id: requests.id,
  triageDueAt: requests.triageDueAt,
  decidedAt: requests.decidedAt,
  receivedAt: requests.receivedAt,
}
interface Key {
  id: number
  own?: string | number | null
  priorityRank: number | null
  placeCode: string | null
  triageDueAt: Date
  decidedAt: Date | null
  receivedAt: Date
}
const ID = { column: requests.id, read: (row: Key) => row.id }
const DUE = { column: requests.triageDueAt, read: (row: Key) => row.triageDueAt }
const RUNS: Record<string, { keys: Run<Key>['keys']; byState: boolean }> = {
  due: { keys: [{ column: requests.triageDueAt, read: (row) => row.triageDueAt }, ID], byState: true },
  decided: { keys: [{ column: requests.decidedAt, read: (row) => row.decidedAt, nullable: true }, ID], byState: true },
  received: { keys: [{ column: requests.receivedAt, read: (row) => row.receivedAt }, ID], byState: false },
  number: { keys: [ID], byState: false },
  priority: { keys: [{ column: requests.priorityRank, read: (row) => row.priorityRank, nullable: true }, DUE, ID], byState: false },
  place: { keys: [{ column: places.code, read: (row) => row.placeCode, nullable: true }, DUE, ID], byState: false },
}

/** By an own field: its index leads to the rows, those without it last. */
const ownRun = (lead: ListField) => ({ keys: [{ column: ownColumn(lead, ownLead), read: (row: Key) => row.own ?? null, nullable: true }, ID], byState: false })

export function requestConditions(ask: Pick<ListAsk, 'clauses' | 'fields'>, from: Standpoint): SQL | undefined {
  return and(
    allConditions(REQUEST_CONDITIONS, ask.clauses, from, (clause) => ownCondition(askedField(ask, clause.field), requests.id, clause, from)),
    withinSites(from, requests.siteId),
  )
}

export async function requestLines(
  db: Reader,
  ask: ListAsk,
  from: Standpoint,
  { after, limit }: { after?: string; limit: number },
): Promise<Page<Outgoing<RequestLine & WithOwn>>> {
  const lead = askedField(ask, ask.sort.field)
  const { keys, byState } = lead.own ? ownRun(lead) : RUNS[ask.sort.field]!
  const clause = ask.clauses.find((one) => one.field === 'state')
  const states = REQUEST_STATES.filter((state) => !clause || clause.any!.includes(state) !== (clause.not ?? false))
  const split = byState && !isNamed(ask)
  const where = requestConditions(split ? { ...ask, clauses: ask.clauses.filter((one) => one !== clause) } : ask, from)
  return keysetPage({
    run: { keys, down: ask.sort.down },
    parts: split ? states.map((state) => eq(requests.state, state)) : [undefined],
    after,
    limit,
    readKeys: (part, order, most, stretch) =>
      lead.own
        ? (ownKeys(db, requests, lead, { where: and(part, where), all: where, order, most, stretch }) as Promise<Key[]>)
        : db
            .select(KEYS)
            .from(requests)
            .leftJoin(places, eq(places.id, requests.placeId))
            .where(and(part, where))
            .orderBy(...order)
            .limit(most),
    readRows: (ids) => withOwn(db, ask, ids, requestLinesOf(db, ids)),
  })
}
