import Big from 'big.js'
import { and, eq, gte, inArray, isNull, notInArray, sql } from 'drizzle-orm'
import type { ToBuyRow } from '#contract/stock'
import { FINISHED_STATES, OVER_STATES, UNAPPROVED_STATES } from '#core/orders'
import { MOST_STRETCHES, STRETCH_DAYS, weighPart } from '#core/stock'
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

/** Every part in use, held against what was used of it at a site in three years: those that are time to buy. */
export default async function weigh({ databaseUrl, siteId, now, rules }: ToBuyJob): Promise<ToBuy> {
  const { db, pool } = openDatabase(databaseUrl, { connections: 4 })
  try {
    const [all, levels, reserved, coming, awaited, demand, last] = await Promise.all([
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
      lastBought(db, siteId),
    ])
    const rows = all.flatMap((part): ToBuyRow[] => {
      const level = levels.get(part.id)
      const bought = last.get(part.id)
      const unitCostMinor = level?.average ?? bought?.priceMinor ?? 0
      const weighed = weighPart(
        {
          unit: part.unit,
          onHand: level?.onHand ?? 0,
          reserved: reserved.get(part.id) ?? 0,
          onOrder: coming.get(part.id) ?? 0,
          awaited: awaited.get(part.id) ?? 0,
          unitCostMinor,
          leadDays: part.leadDays,
          demand: demand.get(part.id) ?? { stretches: 0, sum: 0, squares: 0 },
        },
        rules,
      )
      if (!weighed.buy) return []
      const { position, reorderPoint, economicQuantity, buy, because } = weighed
      const { id: partId, code, name, unit } = part
      const vendor = part.vendor ? { vendorId: part.vendorId, vendor: part.vendor } : { vendorId: bought?.vendorId ?? null, vendor: bought?.vendor ?? null }
      return [
        {
          partId,
          code,
          name,
          unit,
          ...vendor,
          onHand: plain(level?.onHand ?? 0),
          position,
          reorderPoint,
          economicQuantity,
          buy,
          priceMinor: bought?.priceMinor ?? level?.average ?? null,
          because,
        },
      ]
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

/** What was issued and not brought back, in stretches of thirty days from the first time it was used. */
async function demandAt(db: Db, siteId: number, now: Date): Promise<Map<number, Demand>> {
  const since = new Date(now.getTime() - MOST_STRETCHES * STRETCH_DAYS * DAY_MS)
  const at = db.select({ id: stores.id }).from(stores).where(eq(stores.siteId, siteId))
  const stretches = db
    .select({
      partId: stockMovements.partId,
      stretch: sql<number>`floor(timestampdiff(day, ${stockMovements.at}, ${now}) / ${STRETCH_DAYS})`.as('stretch'),
      used: sql<string>`sum(-${stockMovements.quantity})`.as('used'),
    })
    .from(stockMovements)
    .where(and(inArray(stockMovements.kind, ['issue', 'return']), gte(stockMovements.at, since), inArray(stockMovements.storeId, at)))
    .groupBy(stockMovements.partId, sql`stretch`)
    .as('stretches')
  const rows = await db
    .select({
      partId: stretches.partId,
      oldest: sql<string>`max(stretch)`,
      sum: sql<string>`sum(used)`,
      squares: sql<string>`sum(used * used)`,
    })
    .from(stretches)
    .groupBy(stretches.partId)
  return new Map(
    rows.map(({ partId, oldest, sum, squares }) => [
      partId,
      { stretches: Math.min(MOST_STRETCHES, Number(oldest) + 1), sum: Number(sum), squares: Number(squares) },
    ]),
  )
}

/** Of whom a part was bought last at a site, and at what price. */
async function lastBought(db: Db, siteId: number): Promise<Map<number, { priceMinor: number; vendorId: number | null; vendor: string | null }>> {
  const newest = db
    .select({ id: sql<number>`max(${stockMovements.id})`.as('newest_id') })
    .from(stockMovements)
    .innerJoin(stores, eq(stores.id, stockMovements.storeId))
    .where(and(eq(stockMovements.kind, 'receipt'), eq(stores.siteId, siteId)))
    .groupBy(stockMovements.partId)
    .as('newest')
  const rows = await db
    .select({ partId: stockMovements.partId, priceMinor: stockMovements.unitCostMinor, vendorId: vendors.id, vendor: vendors.name })
    .from(newest)
    .innerJoin(stockMovements, eq(stockMovements.id, newest.id))
    .leftJoin(purchaseLines, eq(purchaseLines.id, stockMovements.purchaseLineId))
    .leftJoin(purchases, eq(purchases.id, purchaseLines.purchaseId))
    .leftJoin(vendors, and(eq(vendors.id, purchases.vendorId), isNull(vendors.retiredAt)))
  return new Map(rows.map(({ partId, ...row }) => [partId, row]))
}
