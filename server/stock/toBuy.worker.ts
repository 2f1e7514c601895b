import Big from 'big.js'
import { and, eq, gte, inArray, isNull, min, notInArray, sql } from 'drizzle-orm'
import type { ToBuyRow } from '#contract/stock'
import { FINISHED_STATES, OVER_STATES, UNAPPROVED_STATES } from '#core/orders'
import { LEAST_DAYS, MOST_DAYS, weighPart } from '#core/stock'
import type { BuyingRules, Demand } from '#core/stock'
import { openDatabase } from '#server/kit'
import type { Db } from '#server/kit'
import { orderPlans, orders, parts, purchaseLines, purchases, reservations, stockLevels, stockMovements, stores, vendors } from '../tables'
import { lackingOf } from './arrivals'
import { keepsParts, plain } from './levels'

export interface ToBuyJob {
  databaseUrl: string
  siteId: number
  now: Date
  rules: BuyingRules
}
export interface ToBuy {
  rows: ToBuyRow[]
  /** How many parts were looked at. */
  weighed: number
}

const DAY_MS = 86_400_000
/** So many parts are asked about in one statement. */
const AT_ONCE = 1_000

/** Every part in use, held against what was used of it at a site in three years: those that are time to buy. */
export default async function weigh({ databaseUrl, siteId, now, rules }: ToBuyJob): Promise<ToBuy> {
  const { db, pool } = openDatabase(databaseUrl, { connections: 4 })
  try {
    const [all, levels, reserved, coming, awaited, demand] = await Promise.all([
      db
        .select({
          id: parts.id,
          code: parts.code,
          name: parts.name,
          unit: parts.unit,
          vendorId: parts.vendorId,
          vendor: vendors.name,
          leadDays: parts.leadDays,
        })
        .from(parts)
        .leftJoin(vendors, and(eq(vendors.id, parts.vendorId), isNull(vendors.retiredAt)))
        .where(isNull(parts.retiredAt)),
      levelsAt(db, siteId),
      reservedAt(db, siteId),
      comingTo(db, siteId),
      awaitedAt(db, siteId),
      demandAt(db, siteId, now),
    ])
    const due = all.flatMap((part) => {
      const level = levels.get(part.id)
      const weighed = weighPart(
        {
          unit: part.unit,
          onHand: level?.onHand ?? 0,
          reserved: reserved.get(part.id) ?? 0,
          onOrder: coming.get(part.id) ?? 0,
          awaited: awaited.get(part.id) ?? 0,
          unitCostMinor: level?.average ?? 0,
          leadDays: part.leadDays,
          demand: demand.get(part.id) ?? { days: 0, sum: 0, squares: 0 },
        },
        rules,
      )
      return weighed.buy ? [{ part, level, weighed }] : []
    })
    const last = await lastBought(
      db,
      siteId,
      due.map(({ part }) => part.id),
    )
    const rows = due.map(({ part: { id, code, name, unit, vendorId, vendor }, level, weighed }): ToBuyRow => {
      const { position, reorderPoint, economicQuantity, buy, because } = weighed
      const bought = last.get(id)
      return {
        ...{ partId: id, code, name, unit },
        ...(vendor ? { vendorId, vendor } : { vendorId: bought?.vendorId ?? null, vendor: bought?.vendor ?? null }),
        ...{ onHand: plain(level?.onHand ?? 0), position, reorderPoint, economicQuantity, buy, because },
        priceMinor: bought?.priceMinor ?? level?.average ?? null,
      }
    })
    return { rows: rows.sort((a, b) => a.position - a.reorderPoint - (b.position - b.reorderPoint) || a.code.localeCompare(b.code)), weighed: all.length }
  } finally {
    await pool.end()
  }
}

const byPart = (rows: { partId: number; n: string | number }[]) => new Map(rows.map(({ partId, n }) => [partId, Number(n)]))

async function levelsAt(db: Db, siteId: number): Promise<Map<number, { onHand: number; average: number }>> {
  const rows = await db
    .select({
      partId: stockLevels.partId,
      onHand: sql<string>`sum(${stockLevels.quantity})`,
      value: sql<string>`sum(greatest(0, ${stockLevels.quantity}) * ${stockLevels.averageCostMinor})`,
      held: sql<string>`sum(greatest(0, ${stockLevels.quantity}))`,
      dearest: sql<string>`max(${stockLevels.averageCostMinor})`,
    })
    .from(stockLevels)
    .innerJoin(stores, eq(stores.id, stockLevels.storeId))
    .where(and(eq(stores.siteId, siteId), isNull(stores.retiredAt)))
    .groupBy(stockLevels.partId)
  return new Map(
    rows.map(({ partId, onHand, value, held, dearest }) => [
      partId,
      { onHand: Number(onHand), average: Number(held) > 0 ? Math.round(Number(value) / Number(held)) : Number(dearest) },
    ]),
  )
}

const reservedAt = async (db: Db, siteId: number) =>
  byPart(
    await db
      .select({ partId: reservations.partId, n: sql<string>`sum(${reservations.quantity})` })
      .from(reservations)
      .innerJoin(orders, eq(orders.id, reservations.orderId))
      .innerJoin(stores, eq(stores.id, reservations.storeId))
      .where(and(eq(stores.siteId, siteId), keepsParts))
      .groupBy(reservations.partId),
  )

/** What is asked for counts as well: it is not asked for twice. */
const comingTo = async (db: Db, siteId: number) =>
  byPart(
    await db
      .select({ partId: purchaseLines.partId, n: sql<string>`sum(greatest(0, ${purchaseLines.quantity} - ${purchaseLines.received}))` })
      .from(purchaseLines)
      .innerJoin(purchases, eq(purchases.id, purchaseLines.purchaseId))
      .where(and(eq(purchases.siteId, siteId), inArray(purchases.state, ['asked', 'ordered'])))
      .groupBy(purchaseLines.partId),
  )

/** What approved orders that are not finished still lack of their plans. */
async function awaitedAt(db: Db, siteId: number): Promise<Map<number, number>> {
  const open = await db
    .select({ id: orders.id })
    .from(orderPlans)
    .innerJoin(orders, eq(orders.id, orderPlans.orderId))
    .where(and(eq(orders.siteId, siteId), isNull(orders.discardedAt), notInArray(orders.state, [...UNAPPROVED_STATES, ...FINISHED_STATES, ...OVER_STATES])))
  const all = new Map<number, Big>()
  const lacking = await lackingOf(
    db,
    open.map(({ id }) => id),
  )
  for (const one of lacking.values()) for (const [partId, lacks] of one) all.set(partId, (all.get(partId) ?? new Big(0)).plus(lacks))
  return new Map([...all].map(([partId, lacks]) => [partId, lacks.toNumber()]))
}

/** What was issued and not brought back since a part was used first, read from an index that holds all of it. */
async function demandAt(db: Db, siteId: number, now: Date): Promise<Map<number, Demand>> {
  const since = new Date(now.getTime() - MOST_DAYS * DAY_MS)
  const ids = (await db.select({ id: stores.id }).from(stores).where(eq(stores.siteId, siteId))).map(({ id }) => id)
  if (!ids.length) return new Map()
  const rows = await db
    .select({
      partId: stockMovements.partId,
      sum: sql<string>`sum(-${stockMovements.quantity})`,
      squares: sql<string>`sum(if(${stockMovements.kind} = 'issue', ${stockMovements.quantity} * ${stockMovements.quantity}, 0))`,
      first: min(stockMovements.at),
    })
    .from(stockMovements, { forceIndex: ['stock_movement_demand'] })
    .where(and(inArray(stockMovements.kind, ['issue', 'return']), gte(stockMovements.at, since), inArray(stockMovements.storeId, ids)))
    .groupBy(stockMovements.partId)
  return new Map(
    rows.map(({ partId, sum, squares, first }) => {
      const days = Math.min(MOST_DAYS, Math.max(LEAST_DAYS, Math.ceil((now.getTime() - first!.getTime()) / DAY_MS)))
      return [partId, { days, sum: Number(sum), squares: Number(squares) }]
    }),
  )
}

interface Bought {
  priceMinor: number
  vendorId: number | null
  vendor: string | null
}

/** Of whom these parts were bought last at a site, and at what price. */
async function lastBought(db: Db, siteId: number, partIds: number[]): Promise<Map<number, Bought>> {
  const found = new Map<number, Bought>()
  for (let from = 0; from < partIds.length; from += AT_ONCE) {
    const some = partIds.slice(from, from + AT_ONCE)
    const newest = db
      .select({ id: sql<number>`max(${stockMovements.id})`.as('newest_id') })
      .from(stockMovements)
      .innerJoin(stores, eq(stores.id, stockMovements.storeId))
      .where(and(inArray(stockMovements.partId, some), eq(stockMovements.kind, 'receipt'), eq(stores.siteId, siteId)))
      .groupBy(stockMovements.partId)
      .as('newest')
    const rows = await db
      .select({ partId: stockMovements.partId, priceMinor: stockMovements.unitCostMinor, vendorId: vendors.id, vendor: vendors.name })
      .from(newest)
      .innerJoin(stockMovements, eq(stockMovements.id, newest.id))
      .leftJoin(purchaseLines, eq(purchaseLines.id, stockMovements.purchaseLineId))
      .leftJoin(purchases, eq(purchases.id, purchaseLines.purchaseId))
      .leftJoin(vendors, and(eq(vendors.id, purchases.vendorId), isNull(vendors.retiredAt)))
    for (const { partId, ...row } of rows) found.set(partId, row)
  }
  return found
}
