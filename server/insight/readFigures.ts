import { and, asc, desc, eq, gte, inArray, isNull, notInArray, sql } from 'drizzle-orm'
import * as contract from '#contract/insight'
import { query, standsLike, withinSites } from '#server/kit'
import { costByOrder } from '#server/ledger'
import { OVER_STATES } from '#core/orders'
import { assets, orders, ownStates, requests, trades } from '../tables'

const REPEAT_DAYS = 90
const REPEATED = 3

export default query(contract.readFigures, async ({ db, who, now }) => {
  const yearAgo = new Date(now.getTime() - 365 * 86_400_000)
  const since = new Date(now.getTime() - REPEAT_DAYS * 86_400_000)
  const received = await db
    .select({ month: sql<string>`date_format(${requests.receivedAt}, '%Y-%m')`.as('month'), n: sql<string>`count(*)` })
    .from(requests)
    .where(and(gte(requests.receivedAt, yearAgo), withinSites(who, requests.siteId)))
    .groupBy(sql`month`)
    .orderBy(sql`month`)
  const finished = await db
    .select({
      month: sql<string>`date_format(${orders.finishedAt}, '%Y-%m')`.as('month'),
      n: sql<string>`count(*)`,
      onTime: sql<string>`sum(not ${standsLike('past', sql`${orders.finishedAt}`, orders)})`,
    })
    .from(orders)
    .where(and(gte(orders.finishedAt, yearAgo), withinSites(who, orders.siteId)))
    .groupBy(sql`month`)
  const byTrade = await db
    .select({
      trade: trades.name,
      open: sql<string>`count(*)`,
      past: sql<string>`sum(${standsLike('past', sql`coalesce(${orders.clockStoppedAt}, ${now})`, orders)})`,
    })
    .from(orders)
    .innerJoin(trades, eq(trades.id, orders.tradeId))
    .where(and(notInArray(orders.state, OVER_STATES), isNull(orders.discardedAt), withinSites(who, orders.siteId)))
    .groupBy(trades.id)
    .orderBy(asc(trades.name))
  const byOwnState = await db
    .select({
      id: ownStates.id,
      under: ownStates.under,
      name: ownStates.name,
      mark: ownStates.mark,
      orders: sql<string>`count(*)`,
      past: sql<string>`sum(${standsLike('past', sql`coalesce(${orders.finishedAt}, ${orders.clockStoppedAt}, ${now})`, orders)})`,
    })
    .from(ownStates)
    .innerJoin(orders, and(eq(orders.ownStateId, ownStates.id), eq(orders.state, ownStates.under)))
    .where(and(isNull(orders.discardedAt), withinSites(who, orders.siteId)))
    .groupBy(ownStates.id)
    .orderBy(asc(ownStates.id))
  const repeats = await db
    .select({ assetId: assets.id, tag: assets.tag, name: assets.name, warrantyUntil: assets.warrantyUntil, repairs: sql<string>`count(*)`.as('repairs') })
    .from(orders)
    .innerJoin(assets, eq(assets.id, orders.assetId))
    .where(and(gte(orders.createdAt, since), inArray(orders.kind, ['repair', 'call_back']), withinSites(who, orders.siteId)))
    .groupBy(assets.id)
    .having(sql`repairs >= ${REPEATED}`)
    .orderBy(desc(sql`repairs`), asc(assets.tag))
    .limit(10)
  const repairOrders = repeats.length
    ? await db
        .select({ id: orders.id, assetId: orders.assetId })
        .from(orders)
        .where(
          and(
            inArray(
              orders.assetId,
              repeats.map((row) => row.assetId),
            ),
            gte(orders.createdAt, since),
          ),
        )
    : []
  const costs = await costByOrder(
    db,
    repairOrders.map((row) => row.id),
  )
  const costOf = (assetId: number) => repairOrders.filter((row) => row.assetId === assetId).reduce((sum, row) => sum + (costs.get(row.id) ?? 0), 0)
  return {
    byMonth: received.map((row) => {
      const done = finished.find((other) => other.month === row.month)
      return { month: row.month, requests: Number(row.n), finished: Number(done?.n ?? 0), finishedOnTime: Number(done?.onTime ?? 0) }
    }),
    byTrade: byTrade.map((row) => ({ trade: row.trade, open: Number(row.open), past: Number(row.past) })),
    byOwnState: byOwnState.map((row) => ({ ...row, orders: Number(row.orders), past: Number(row.past) })),
    repeats: repeats.map((row) => ({ ...row, repairs: Number(row.repairs), costMinor: costOf(row.assetId) })),
    currency: 'EUR',
  }
})
