import { and, desc, eq, inArray, isNull, lte, ne, sql } from 'drizzle-orm'
import * as contract from '#contract/methods'
import { hireDays } from '#core/bookings'
import { estimateOf, likeCosts, planChanges } from '#core/methods'
import type { EstimateFacts, PlanLines } from '#core/methods'
import { hasOutgrown, isUnapproved } from '#core/orders'
import type { PlanningRules } from '#core/orders'
import { canAt, query } from '#server/kit'
import type { Reader, Tx } from '#server/kit'
import { rulesOf, seenOrder } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import {
  accounts,
  approvals,
  assets,
  bookings,
  equipment,
  parts,
  people,
  quotes,
  sites,
  stockLevels,
  stockMovements,
  stores,
  technicianRates,
  technicians,
  technicianTrades,
  trades,
  vendors,
  vendorTrades,
} from '../tables'
import { noteOutgrown } from '#server/orders/records'
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
  const { planning } = await rulesOf(db, siteId)
  // What is no longer planned has to be priced as well, to say what it came to.
  const both = {
    labour: [...lines.labour, ...(lines.agreed?.labour ?? [])],
    parts: [...lines.parts, ...(lines.agreed?.parts ?? [])],
    tools: [...lines.tools, ...(lines.agreed?.tools ?? [])],
  }
  const [facts, costs] = await Promise.all([
    estimateFacts(db, order, both, now, planning),
    costsLike(service.config.databaseUrl, { orderId, siteId, kind, assetId, placeId, classCode: asset?.classCode ?? null }),
  ])
  const estimate = estimateOf(lines, facts)
  const approved = !isUnapproved(order.state)
  return {
    ...estimate,
    currency: site!.currency,
    enteredMinor: order.estimateMinor,
    approvedMinor: agreed?.amountMinor ?? null,
    changes: approved && lines.agreed ? planChanges(estimateOf(lines.agreed, facts).lines, estimate.lines) : null,
    tolerancePercent: planning.tolerancePercent,
    outgrown: order.outgrownMinor !== null,
    like: likeCosts(costs),
    mayTake: order.state === 'draft' && canAt(who, 'orders.edit', siteId) && whyFixed(order) === null,
  }
})

/** Rates in force now at the site, prices of its stores, and the terms of the vendor the order names. Five statements at once. */
async function estimateFacts(
  db: Reader,
  { id: orderId, siteId, vendorId }: OrderRecord,
  { labour, parts: wanted, tools }: Pick<PlanLines, 'labour' | 'parts' | 'tools'>,
  now: Date,
  { costing }: PlanningRules,
): Promise<EstimateFacts> {
  const tradeIds = labour.map(({ tradeId }) => tradeId)
  const partIds = wanted.map(({ partId }) => partId)
  const inForce = sql<number>`(select ${technicianRates.normalPerHour} from ${technicianRates}
    where ${and(eq(technicianRates.technicianId, technicians.id), lte(technicianRates.fromAt, now))} order by ${technicianRates.fromAt} desc limit 1)`
  const equipmentIds = tools.flatMap(({ equipmentId }) => equipmentId ?? [])
  const [rates, tradeRows, prices, [vendor], lent] = await Promise.all([
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
            average: sql<string | null>`(select case when sum(${stockLevels.quantity}) > 0
              then sum(${stockLevels.quantity} * ${stockLevels.averageCostMinor}) / sum(${stockLevels.quantity}) else max(${stockLevels.averageCostMinor}) end
              from ${stockLevels} join ${stores} on ${stores.id} = ${stockLevels.storeId} where ${stockLevels.partId} = part.id and ${stores.siteId} = ${siteId})`,
            last: sql<string | null>`(select moved.unit_cost_minor from ${stockMovements} moved join ${stores} its_store on its_store.id = moved.store_id
              where moved.part_id = part.id and moved.kind = 'receipt' and its_store.site_id = ${siteId}
              order by moved.at desc, moved.id desc limit 1)`,
          })
          .from(parts)
          .where(inArray(parts.id, partIds))
      : [],
    vendorId ? db.select().from(vendors).where(eq(vendors.id, vendorId)) : [],
    equipmentIds.length
      ? db
          .select({ piece: equipment, from: bookings.fromAt, until: bookings.untilAt })
          .from(equipment)
          .leftJoin(bookings, and(eq(bookings.equipmentId, equipment.id), eq(bookings.orderId, orderId), ne(bookings.state, 'cancelled')))
          .where(inArray(equipment.id, equipmentIds))
      : [],
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
      const row = prices.find((one) => one.id === id)
      const price = costing === 'last' ? (row?.last ?? row?.average) : row?.average
      return price === null || price === undefined ? null : Math.round(Number(price))
    },
    costing,
    hire: (id) => {
      const mine = lent.filter(({ piece }) => piece.id === id)
      const perDayMinor = mine[0]?.piece.perDayMinor
      if (!perDayMinor) return null
      const days = mine.reduce((sum, { from, until }) => sum + (from && until ? hireDays({ from, until }) : 0), 0)
      return { name: mine[0]!.piece.name, perDayMinor, days: days || null }
    },
    vendor: vendor ?? null,
    vendorDoes: (id) => does.some((row) => row.tradeId === id),
  }
}

/**
 * Holds what is planned against what was agreed to, after every change of either. What has grown too far keeps the order
 * from being dispatched until somebody agreed to that. @param order as it stands, locked
 */
export async function weighPlan(tx: Tx, order: OrderRecord, now: Date): Promise<void> {
  if (isUnapproved(order.state) || order.estimateMinor === null) return
  const [lines, { planning }] = await Promise.all([linesOf(tx, order.id), rulesOf(tx, order.siteId)])
  const { totalMinor } = estimateOf(lines, await estimateFacts(tx, order, lines, now, planning))
  // The price of a vendor that was taken is known, whatever was reckoned before.
  const [taken] = await tx
    .select({ netMinor: quotes.netMinor })
    .from(quotes)
    .where(and(eq(quotes.orderId, order.id), eq(quotes.state, 'taken')))
  const plannedMinor = Math.max(totalMinor, taken?.netMinor ?? 0)
  const outgrownMinor = hasOutgrown(plannedMinor, order.estimateMinor, planning) ? plannedMinor : null
  if (outgrownMinor !== order.outgrownMinor) await noteOutgrown(tx, order.id, outgrownMinor)
}
