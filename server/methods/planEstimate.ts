import { and, desc, eq, inArray, isNull, lte, sql } from 'drizzle-orm'
import * as contract from '#contract/methods'
import { estimateOf, likeCosts } from '#core/methods'
import type { EstimateFacts, PlanLines } from '#core/methods'
import { canAt, query } from '#server/kit'
import type { Reader } from '#server/kit'
import { seenOrder } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import {
  accounts,
  approvals,
  assets,
  parts,
  people,
  sites,
  stockLevels,
  stores,
  technicianRates,
  technicians,
  technicianTrades,
  trades,
  vendors,
  vendorTrades,
} from '../tables'
import { costsLike } from './offerMethods'
import { linesOf, whyFixed } from './orderPlan'

export default query(contract.readPlanEstimate, async ({ db, who, input, now, service }) => {
  const order = await seenOrder(db, who, input.orderId)
  const [lines, [site], [asset], [agreed]] = await Promise.all([
    linesOf(db, order.id),
    db.select({ currency: sites.currency }).from(sites).where(eq(sites.id, order.siteId)),
    order.assetId ? db.select({ classCode: assets.classCode }).from(assets).where(eq(assets.id, order.assetId)) : [],
    db
      .select({ amountMinor: approvals.amountMinor })
      .from(approvals)
      .where(and(eq(approvals.orderId, order.id), eq(approvals.verdict, 'approved')))
      .orderBy(desc(approvals.id))
      .limit(1),
  ])
  const { id: orderId, siteId, kind, assetId, placeId } = order
  const [facts, costs] = await Promise.all([
    estimateFacts(db, order, lines, now),
    costsLike(service.config.databaseUrl, { orderId, siteId, kind, assetId, placeId, classCode: asset?.classCode ?? null }),
  ])
  return {
    ...estimateOf(lines, facts),
    currency: site!.currency,
    enteredMinor: order.estimateMinor,
    approvedMinor: agreed?.amountMinor ?? null,
    like: likeCosts(costs),
    mayTake: order.state === 'draft' && canAt(who, 'orders.edit', siteId) && whyFixed(order) === null,
  }
})

/** Rates in force now at the site, prices of its stores, and the terms of the vendor the order names. Four statements at once. */
async function estimateFacts(db: Reader, { siteId, vendorId }: OrderRecord, { labour, parts: wanted }: PlanLines, now: Date): Promise<EstimateFacts> {
  const tradeIds = labour.map(({ tradeId }) => tradeId)
  const partIds = wanted.map(({ partId }) => partId)
  const inForce = sql<number>`(select ${technicianRates.normalPerHour} from ${technicianRates}
    where ${and(eq(technicianRates.technicianId, technicians.id), lte(technicianRates.fromAt, now))} order by ${technicianRates.fromAt} desc limit 1)`
  const [rates, tradeRows, prices, [vendor]] = await Promise.all([
    tradeIds.length
      ? db
          .select({ tradeId: technicianTrades.tradeId, rate: inForce })
          .from(technicianTrades)
          .innerJoin(technicians, eq(technicians.id, technicianTrades.technicianId))
          .innerJoin(accounts, and(eq(accounts.id, technicians.accountId), isNull(accounts.disabledAt)))
          .innerJoin(people, and(eq(people.id, accounts.personId), eq(people.siteId, siteId)))
          .where(inArray(technicianTrades.tradeId, tradeIds))
      : [],
    tradeIds.length ? db.select({ id: trades.id, name: trades.name }).from(trades).where(inArray(trades.id, tradeIds)) : [],
    partIds.length
      ? db
          .select({
            id: parts.id,
            name: parts.name,
            // Over the stores of the site, by what lies there; where nothing does, what it cost last.
            price: sql<string | null>`(select case when sum(${stockLevels.quantity}) > 0
              then sum(${stockLevels.quantity} * ${stockLevels.averageCostMinor}) / sum(${stockLevels.quantity}) else max(${stockLevels.averageCostMinor}) end
              from ${stockLevels} join ${stores} on ${stores.id} = ${stockLevels.storeId} where ${stockLevels.partId} = part.id and ${stores.siteId} = ${siteId})`,
          })
          .from(parts)
          .where(inArray(parts.id, partIds))
      : [],
    vendorId ? db.select().from(vendors).where(eq(vendors.id, vendorId)) : [],
  ])
  const does = vendorId ? await db.select({ tradeId: vendorTrades.tradeId }).from(vendorTrades).where(eq(vendorTrades.vendorId, vendorId)) : []
  return {
    tradeName: (id) => tradeRows.find((row) => row.id === id)?.name ?? 'a trade',
    partName: (id) => prices.find((row) => row.id === id)?.name ?? 'A part',
    rate: (id) => {
      const mine = rates.filter((row) => row.tradeId === id && row.rate !== null).map((row) => Number(row.rate))
      return mine.length ? { perHourMinor: Math.round(mine.reduce((sum, rate) => sum + rate, 0) / mine.length), people: mine.length } : null
    },
    partCost: (id) => {
      const price = prices.find((row) => row.id === id)?.price
      return price === null || price === undefined ? null : Math.round(Number(price))
    },
    vendor: vendor ?? null,
    vendorDoes: (id) => does.some((row) => row.tradeId === id),
  }
}
