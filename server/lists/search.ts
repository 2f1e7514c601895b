import { and, desc, eq, gte, inArray, isNotNull, notInArray, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/lists'
import type { SearchAnswer, SearchFound, SearchType } from '#contract/lists'
import { foldText, formatNumber, numbersAsked, searchWords } from '#core/kit'
import { OVER_STATES, stationOf } from '#core/orders'
import { findDocuments } from '#server/documents'
import { decodeCursor, encodeCursor, inThread, isOutOfTime, likeText, query, withinSites } from '#server/kit'
import type { Outgoing, Reader } from '#server/kit'
import { UNDECIDED_STATES } from '#core/requests'
import { comments, numberings, orders, places, requests } from '../tables'
import { insidePlaces } from './conditions'
import type { SpellingJob } from './spelling.worker'
import type { OwnKind } from '#core/own'
import { namedByIds, namedLike } from './namedLike'
import { ownWritten } from './own'
import type { Found, Looked, Looking } from './searching'
import { newestWithWords } from './wordIndex'

const EACH = 5
const SNIPPET = 160
const spell = inThread<SpellingJob, string[]>('spelling.worker', { stays: true })

/** Words over everything; when nothing is written like that, the words that are most like them. */
export default query(contract.search, async ({ db, who, input, service }) => {
  const q = input.q.trim()
  if (q.length < 2) return NOTHING
  const limit = input.limit ?? (input.type ? 20 : EACH)
  const before = input.after && input.type ? Number(decodeCursor(input.after, ['integer'])[0]) : undefined
  const looking = { db, who, ask: input, words: searchWords(q), before, limit }
  if (!looking.words.length) return NOTHING
  const numbered = before === undefined ? (await Promise.all([byNumber(looking), byOwn(looking)])).flat() : []
  const found = await byWords(looking)
  if (numbered.length || found.rows.length || before !== undefined) return answer(input.type, numbered, found, limit, null)
  const words = await spell({ databaseUrl: service.config.databaseUrl, words: looking.words })
  if (words.join(' ') === looking.words.join(' ')) return { ...NOTHING, partial: found.partial }
  return answer(input.type, [], await byWords({ ...looking, words }), limit, words.join(' '))
})

const NOTHING: SearchAnswer = { rows: [], instead: null, partial: false, next: null }

/** Numbers and outside references first; then, over everything, the things that bear the name before the work that mentions it. */
function answer(type: SearchType | undefined, numbered: Found[], { rows, partial }: Looked, limit: number, instead: string | null): Outgoing<SearchAnswer> {
  const rest = rows.filter((row) => !numbered.some((one) => one.type === row.type && one.id === row.id))
  const shown = type ? rest.slice(0, limit) : rest
  const next = type && rest.length > limit ? encodeCursor([shown.at(-1)!.key]) : null
  const told = [...numbered, ...shown].map(({ key: _, ...row }) => row)
  return { rows: told, instead: rows.length ? instead : null, partial, next }
}

async function byWords(looking: Looking): Promise<Looked> {
  const { type } = looking.ask
  if (type) return LOOKERS[type]({ ...looking, limit: looking.limit + 1 })
  const filtered = looking.ask.open !== undefined || looking.ask.priority || looking.ask.from
  const types: SearchType[] = filtered ? ['order', 'request'] : ['asset', 'place', 'person', 'order', 'request', 'conversation', 'document']
  const looked = await Promise.all(types.map((one) => LOOKERS[one](looking)))
  return { rows: looked.flatMap((one) => one.rows), partial: looked.some((one) => one.partial) }
}

const LOOKERS: Record<SearchType, (looking: Looking) => Promise<Looked>> = {
  async order(looking) {
    const { db, words, before, limit } = looking
    const { ids, partial } = await newestWithWords(db, {
      table: orders,
      id: orders.id,
      columns: [orders.summary, orders.description],
      words,
      where: orderFilters(looking),
      before,
      limit,
    })
    return { rows: await ordersWhere(db, ids.length ? inArray(orders.id, ids) : undefined), partial }
  },
  async request(looking) {
    const { db, words, before, limit } = looking
    const { ids, partial } = await newestWithWords(db, {
      table: requests,
      id: requests.id,
      columns: [requests.summary, requests.description],
      words,
      where: requestFilters(looking),
      before,
      limit,
    })
    return { rows: await requestsWhere(db, ids.length ? inArray(requests.id, ids) : undefined), partial }
  },
  async conversation({ db, who, words, before, limit, ask }) {
    const { ids, partial } = await newestWithWords(db, {
      table: comments,
      id: comments.id,
      columns: [comments.text],
      words,
      where: undefined,
      before,
      limit: limit * 4,
    })
    if (!ids.length) return { rows: [], partial }
    const rows = await db
      .select({ id: comments.id, text: comments.text, author: comments.authorName, at: comments.at, request: requests })
      .from(comments)
      .innerJoin(requests, eq(requests.id, comments.requestId))
      .where(and(inArray(comments.id, ids), withinSites(who, requests.siteId), ask.placeId ? around(requests.placeId, ask.placeId) : undefined))
      .orderBy(desc(comments.id))
      .limit(limit)
    const found = rows.map(({ id, text, author, at, request }) => ({
      type: 'conversation' as const,
      id: request.id,
      key: id,
      title: request.number,
      subtitle: request.summary,
      snippet: `${author}: ${snippetOf(text, words)}`,
      state: request.state,
      station: stationOfRequest(request),
      at,
    }))
    return { rows: found, partial }
  },
  place: namedLike('place'),
  asset: namedLike('asset'),
  person: namedLike('person'),
  async document({ db, who, words, before, limit, ask }) {
    // Documents have no priority, and are of places only through what they are of.
    if (ask.placeId) return { rows: [], partial: false }
    try {
      const rows = await findDocuments(db, who, words, { before, limit })
      return {
        rows: rows.map(({ id, title, words: inside, on, recordId, called }) => ({
          type: 'document' as const,
          id: recordId,
          on,
          key: id,
          title,
          subtitle: called,
          snippet: snippetOf(inside.slice(title.length).trim(), words),
          state: null,
          station: null,
          at: null,
        })),
        partial: false,
      }
    } catch (error) {
      if (!isOutOfTime(error)) throw error
      return { rows: [], partial: true }
    }
  },
}

/** Orders and requests with this number, or this reference of another system. */
async function byNumber(looking: Looking): Promise<Found[]> {
  const { db, ask } = looking
  const q = ask.q.trim()
  const asked = numbersAsked(q)
  if (!asked.length && (!/\d/.test(q) || q.includes(' '))) return []
  const prefixes = /^\d+$/.test(q)
    ? (await db.select().from(numberings)).flatMap((row) => [`${row.prefix}-${q}`, formatNumber(row.prefix, Number(q), row.digits)])
    : [...new Set([...asked, q.toUpperCase()])]
  const starts = (column: typeof orders.number | typeof requests.number) => or(...prefixes.map((text) => sql`${column} like ${`${likeText(text)}%`}`))
  const wants = (type: SearchType) => !ask.type || ask.type === type
  const [byOrder, byRequest] = await Promise.all([
    wants('order')
      ? ordersWhere(db, and(or(starts(orders.number), sql`${orders.outsideReference} like ${`${likeText(q)}%`}`), orderFilters(looking)), EACH)
      : [],
    wants('request')
      ? requestsWhere(db, and(or(starts(requests.number), sql`${requests.outsideReference} like ${`${likeText(q)}%`}`), requestFilters(looking)), EACH)
      : [],
  ])
  // The very one that was meant comes before those that merely begin like it.
  const meant = (row: Found) => Number(!prefixes.includes(String(row.title)))
  return [...byOrder, ...byRequest].sort((a, b) => meant(a) - meant(b))
}

/** What bears these words at the beginning of a field the site has added: a reference, a key number, a name. */
async function byOwn(looking: Looking): Promise<Found[]> {
  const { db, ask, words } = looking
  const begun = await ownWritten(db, ask.q.trim(), words)
  const wanted = (type: SearchType, kind: OwnKind) => (!ask.type || ask.type === type ? (begun.get(kind) ?? []) : [])
  const named = (type: 'place' | 'asset' | 'person', ids: number[]) => (ids.length ? namedByIds(type, looking, ids) : [])
  const [onOrders, onRequests] = [wanted('order', 'orders'), wanted('request', 'requests')]
  const found = await Promise.all([
    ordersWhere(db, onOrders.length ? and(inArray(orders.id, onOrders), orderFilters(looking)) : undefined, EACH),
    requestsWhere(db, onRequests.length ? and(inArray(requests.id, onRequests), requestFilters(looking)) : undefined, EACH),
    named('place', wanted('place', 'places')),
    named('asset', wanted('asset', 'assets')),
    named('person', wanted('person', 'people')),
  ])
  return found.flat()
}

const around = (column: MySqlColumn, placeId: number): SQL => insidePlaces(column, [placeId])

const orderFilters = ({ who, ask }: Looking): SQL | undefined =>
  and(
    withinSites(who, orders.siteId),
    ask.open === undefined ? undefined : ask.open ? notInArray(orders.state, OVER_STATES) : inArray(orders.state, OVER_STATES),
    ask.priority ? eq(orders.priority, ask.priority) : undefined,
    ask.placeId ? around(orders.placeId, ask.placeId) : undefined,
    ask.from ? gte(orders.createdAt, ask.from) : undefined,
  )
const requestFilters = ({ who, ask }: Looking): SQL | undefined =>
  and(
    withinSites(who, requests.siteId),
    ask.open === undefined ? undefined : ask.open ? inArray(requests.state, UNDECIDED_STATES) : isNotNull(requests.decidedAt),
    ask.priority ? eq(requests.priority, ask.priority) : undefined,
    ask.placeId ? around(requests.placeId, ask.placeId) : undefined,
    ask.from ? gte(requests.receivedAt, ask.from) : undefined,
  )

async function ordersWhere(db: Reader, where: SQL | undefined, limit?: number): Promise<Found[]> {
  if (!where) return []
  const asked = db
    .select({ id: orders.id, number: orders.number, summary: orders.summary, state: orders.state, at: orders.createdAt, place: places.code })
    .from(orders)
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(where)
    .orderBy(desc(orders.id))
  const rows = await (limit ? asked.limit(limit) : asked)
  return rows.map((row) => workFound('order', row, stationOf(row.state)))
}

async function requestsWhere(db: Reader, where: SQL | undefined, limit?: number): Promise<Found[]> {
  if (!where) return []
  const asked = db
    .select({
      id: requests.id,
      number: requests.number,
      summary: requests.summary,
      state: requests.state,
      takenUpAt: requests.takenUpAt,
      at: requests.receivedAt,
      place: places.code,
    })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .where(where)
    .orderBy(desc(requests.id))
  const rows = await (limit ? asked.limit(limit) : asked)
  return rows.map((row) => workFound('request', row, stationOfRequest(row)))
}

/** A request or an order as it is told of when it was found. */
const workFound = (
  type: 'order' | 'request',
  row: { id: number; number: string; summary: string; state: string; at: Date; place: string | null },
  station: SearchFound['station'],
): Found => ({
  type,
  id: row.id,
  key: row.id,
  title: row.number,
  subtitle: [row.summary, row.place].filter(Boolean).join(', '),
  snippet: null,
  state: row.state,
  station,
  at: row.at,
})

const stationOfRequest = (row: { state: string; takenUpAt: Date | null }) => (row.state === 'new' && !row.takenUpAt ? ('intake' as const) : ('triage' as const))

/** The words around the first that was found. */
function snippetOf(text: string, words: string[]): string {
  const flat = text.replace(/\s+/g, ' ')
  const at = Math.max(0, Math.min(...words.map((word) => foldText(flat).indexOf(word)).filter((place) => place >= 0), flat.length) - 40)
  return `${at > 0 ? '… ' : ''}${flat.slice(at, at + SNIPPET)}${at + SNIPPET < flat.length ? ' …' : ''}`
}
