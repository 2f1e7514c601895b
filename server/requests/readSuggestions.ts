import { and, desc, eq, gt, inArray, isNotNull, ne, sql } from 'drizzle-orm'
import * as contract from '#contract/requests'
import type { Duplicate, Precedent, Suggestion, Suggestions } from '#contract/requests'
import { likelyTheSame } from '#core/requests'
import type { Alike, Asked, Guess } from '#core/requests'
import { maySee, notFound, query, withinSites } from '#server/kit'
import type { Asker, Db, Outgoing } from '#server/kit'
import { costByOrder } from '#server/ledger'
import { isOver } from '#core/orders'
import { accounts, assets, categories, orders, people, places, requestOrders, requests, stints, technicians, trades, vendors, visits } from '../tables'
import { askPrecedents, idsOf } from './askPrecedents'

const RECENT_MS = 60 * 86_400_000
const MOST_OPEN = 500
const MOST_DUPLICATES = 5
const MOST_PRECEDENTS = 4
const NOTHING: Outgoing<Suggestions> = { ready: false, category: null, trade: null, asset: null, precedents: [], duplicates: [] }

export default query(contract.readSuggestions, async ({ db, who, input, now, service }) => {
  const [found] = await db
    .select({ request: requests, path: places.path })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .where(eq(requests.id, input.id))
  if (!found || !maySee(who, found.request.siteId)) throw notFound('request')
  const { request } = found
  const asked: Asked = {
    text: request.summary,
    more: request.description,
    placePath: idsOf(found.path),
    assetId: request.assetId,
    at: request.receivedAt.getTime(),
  }
  const [answer, duplicates] = await Promise.all([askPrecedents(service, asked), openAlike(db, who, request, asked, now)])
  if (!answer.ready) return { ...NOTHING, duplicates }
  const { category, trade, asset } = answer.guesses!
  return {
    ready: true,
    category: await named(category, (id) => db.select({ name: categories.name }).from(categories).where(eq(categories.id, id))),
    trade: await named(trade, (id) => db.select({ name: trades.name }).from(trades).where(eq(trades.id, id))),
    asset: await named(asset, (id) =>
      db
        .select({ name: sql<string>`concat(${assets.tag}, ' ', ${assets.name})` })
        .from(assets)
        .where(eq(assets.id, id)),
    ),
    precedents: await solvedLikeIt(
      db,
      who,
      answer.alike.filter((one) => one.id !== request.id),
    ),
    duplicates,
  }
})

async function named(guess: Guess | null, nameOf: (id: number) => Promise<{ name: string }[]>): Promise<Suggestion | null> {
  if (!guess) return null
  const [row] = await nameOf(guess.id)
  if (!row) return null
  const words = guess.words.map((word) => `“${word}”`)
  const because = words.length ? `because of ${words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words[0]}` : 'because of where it is'
  return { id: guess.id, name: row.name, sure: guess.sure, because }
}

/** Open requests that may be the same: alike in words, or near and about the same asset. */
async function openAlike(db: Db, who: Asker, request: typeof requests.$inferSelect, asked: Asked, now: Date): Promise<Outgoing<Duplicate>[]> {
  const rows = await db
    .select({
      id: requests.id,
      number: requests.number,
      summary: requests.summary,
      description: requests.description,
      receivedAt: requests.receivedAt,
      state: requests.state,
      orderState: orders.state,
      assetId: requests.assetId,
      path: places.path,
      place: places.name,
    })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .leftJoin(requestOrders, eq(requestOrders.requestId, requests.id))
    .leftJoin(orders, eq(orders.id, requestOrders.orderId))
    .where(
      and(
        eq(requests.siteId, request.siteId),
        ne(requests.id, request.id),
        inArray(requests.state, ['new', 'asked', 'accepted']),
        gt(requests.receivedAt, new Date(now.getTime() - RECENT_MS)),
        withinSites(who, requests.siteId),
      ),
    )
    .orderBy(desc(requests.receivedAt))
    .limit(MOST_OPEN)
  const open = rows.filter((row) => row.state !== 'accepted' || (row.orderState && !isOver(row.orderState)))
  const distinct = open.filter((row, index) => open.findIndex((one) => one.id === row.id) === index)
  return likelyTheSame(
    { ...asked, id: request.id },
    distinct.map((row) => ({ ...row, text: row.summary, more: row.description, placePath: idsOf(row.path) })),
    MOST_DUPLICATES,
  ).map(({ id, number, summary, place, receivedAt }) => ({ id, number, summary, place, receivedAt }))
}

/** How the most alike were solved: the finished orders they led to. */
async function solvedLikeIt(db: Db, who: Asker, alike: Alike[]): Promise<Outgoing<Precedent>[]> {
  if (!alike.length) return []
  const rows = await db
    .select({ requestId: requestOrders.requestId, order: orders, place: places.name })
    .from(requestOrders)
    .innerJoin(orders, eq(orders.id, requestOrders.orderId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(
      and(
        inArray(
          requestOrders.requestId,
          alike.map((one) => one.id),
        ),
        isNotNull(orders.finishedAt),
        withinSites(who, orders.siteId),
      ),
    )
  const rank = new Map(alike.map((one, index) => [one.id, index]))
  const best = rows
    .sort((a, b) => rank.get(a.requestId)! - rank.get(b.requestId)!)
    .filter((row, index, all) => all.findIndex((one) => one.order.id === row.order.id) === index)
    .slice(0, MOST_PRECEDENTS)
  const ids = best.map((row) => row.order.id)
  if (!ids.length) return []
  const [cost, minutes, crew] = await Promise.all([
    costByOrder(db, ids),
    db
      .select({ orderId: stints.orderId, minutes: sql<string>`coalesce(sum(${stints.minutes}), 0)` })
      .from(stints)
      .where(inArray(stints.orderId, ids))
      .groupBy(stints.orderId),
    db
      .selectDistinct({ orderId: visits.orderId, name: sql<string | null>`coalesce(${people.name}, ${vendors.name})` })
      .from(visits)
      .leftJoin(technicians, eq(technicians.id, visits.technicianId))
      .leftJoin(accounts, eq(accounts.id, technicians.accountId))
      .leftJoin(people, eq(people.id, accounts.personId))
      .leftJoin(vendors, eq(vendors.id, visits.vendorId))
      .where(inArray(visits.orderId, ids)),
  ])
  return best.map(({ order, place }) => ({
    id: order.id,
    number: order.number,
    summary: order.summary,
    place,
    finishedAt: order.finishedAt!,
    who:
      crew
        .filter((one) => one.orderId === order.id && one.name)
        .map((one) => one.name)
        .join(', ') || null,
    minutes: Number(minutes.find((one) => one.orderId === order.id)?.minutes ?? 0),
    costMinor: cost.get(order.id) ?? 0,
    outcome: [order.cause, order.fix].filter(Boolean).join(', '),
  }))
}
