import { and, eq, gt, inArray, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { unionAll } from 'drizzle-orm/mysql-core'
import { chargedHours, lineAmount } from '#core/kit'
import type { CostLine } from '#core/ledger'
import { isCharged, STINT_KIND_NAMES } from '#core/ledger'
import type { Reader } from '#server/kit'
import { statement } from '#server/kit'
import { accounts, bookings, equipment, orders, parts, people, stints, stockMovements, technicians, vendorBillLines, vendorBills, vendors } from '../tables'

/** Every cost on an order, traceable to its stint, movement or bill line. Two statements. */
export async function costLinesOf(db: Reader, orderId: number): Promise<CostLine[]> {
  const labour = await db
    .select({ stint: stints, person: people.name })
    .from(stints)
    .innerJoin(technicians, eq(technicians.id, stints.technicianId))
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(eq(stints.orderId, orderId))
    .orderBy(stints.startAt)
  return [...labourLines(labour), ...(await materialLinesOf(db, orderId))]
}

/** What the time of our own people costs; a vendor's time is billed by the vendor. */
export function labourLines(rows: { stint: typeof stints.$inferSelect; person: string | null }[]): CostLine[] {
  return rows.flatMap(({ stint, person }): CostLine[] =>
    stint.technicianId === null || !isCharged(stint.kind) || !stint.minutes
      ? []
      : [
          {
            kind: 'labour',
            sourceId: stint.id,
            description: `${person}, ${STINT_KIND_NAMES[stint.kind].toLowerCase()}`,
            quantity: chargedHours(stint.minutes),
            unit: 'h',
            unitCost: stint.perHourMinor ?? 0,
            cost: stint.costMinor ?? 0,
            vendorId: null,
          },
        ],
  )
}

/** The equipment an order had, the parts it used in the order in which they were taken, and what vendors billed. One statement. */
export async function materialLinesOf(db: Reader, orderId: number): Promise<CostLine[]> {
  const rows = await materialsOf(db, { orderId })
  return rows.map(({ at: _at, amount, ...row }): CostLine => {
    const unitCost = Number(row.unitCost)
    if (row.kind === 'vendor') return { ...row, unitCost, cost: Number(amount) }
    if (row.kind === 'equipment') return { ...row, unitCost, cost: lineAmount(row.quantity, unitCost) }
    const quantity = row.quantity.startsWith('-') ? row.quantity.slice(1) : `-${row.quantity}`
    return { ...row, quantity, unitCost, cost: lineAmount(quantity, unitCost) }
  })
}

/** What an order is charged for one: what it counted for in stock, unless the site charges otherwise. */
const CHARGED = sql`coalesce(${stockMovements.chargeMinor}, ${stockMovements.unitCostMinor})`

/** Equipment that came back and costs something. */
const isHired = and(eq(bookings.state, 'back'), gt(bookings.perDayMinor, 0))
const HIRE = sql`coalesce(${bookings.hiredDays}, 0) * ${bookings.perDayMinor}`

const materialsOf = statement(['orderId'], (db, { orderId }) => {
  const used = db
    .select({
      kind: sql<'parts' | 'equipment' | 'vendor'>`'parts'`.as('kind'),
      sourceId: sql<number>`${stockMovements.id}`.as('source_id'),
      description: sql<string>`${parts.name}`.as('description'),
      quantity: sql<string>`cast(${stockMovements.quantity} as char)`.as('quantity'),
      unit: sql<string>`${parts.unit}`.as('unit'),
      unitCost: sql<string>`${CHARGED}`.as('unit_cost'),
      amount: sql<string>`0`.as('amount'),
      vendorId: sql<number | null>`null`.as('vendor_id'),
      at: sql<string>`${stockMovements.at}`.as('at'),
    })
    .from(stockMovements)
    .innerJoin(parts, eq(parts.id, stockMovements.partId))
    .where(and(eq(stockMovements.orderId, orderId), inArray(stockMovements.kind, ['issue', 'return'])))
  const billed = db
    .select({
      kind: sql<'parts' | 'equipment' | 'vendor'>`'vendor'`.as('kind'),
      sourceId: sql<number>`${vendorBillLines.id}`.as('source_id'),
      description: sql<string>`concat(${vendors.name}, ': ', ${vendorBillLines.description})`.as('description'),
      quantity: sql<string>`cast(${vendorBillLines.quantity} as char)`.as('quantity'),
      unit: sql<string>`'pc'`.as('unit'),
      unitCost: sql<string>`${vendorBillLines.unitPriceMinor}`.as('unit_cost'),
      amount: sql<string>`${vendorBillLines.amountMinor}`.as('amount'),
      vendorId: sql<number | null>`${vendorBills.vendorId}`.as('vendor_id'),
      at: sql<string>`''`.as('at'),
    })
    .from(vendorBillLines)
    .innerJoin(vendorBills, eq(vendorBills.id, vendorBillLines.billId))
    .innerJoin(vendors, eq(vendors.id, vendorBills.vendorId))
    .where(eq(vendorBills.orderId, orderId))
  const lent = db
    .select({
      kind: sql<'parts' | 'equipment' | 'vendor'>`'equipment'`.as('kind'),
      sourceId: sql<number>`${bookings.id}`.as('source_id'),
      description: sql<string>`concat(${equipment.tag}, ' ', ${equipment.name})`.as('description'),
      quantity: sql<string>`cast(${bookings.hiredDays} as char)`.as('quantity'),
      unit: sql<string>`'d'`.as('unit'),
      unitCost: sql<string>`${bookings.perDayMinor}`.as('unit_cost'),
      amount: sql<string>`0`.as('amount'),
      vendorId: sql<number | null>`null`.as('vendor_id'),
      at: sql<string>`${bookings.backAt}`.as('at'),
    })
    .from(bookings)
    .innerJoin(equipment, eq(equipment.id, bookings.equipmentId))
    .where(and(eq(bookings.orderId, orderId), isHired))
  return unionAll(used, billed, lent).orderBy(sql`kind`, sql`at`, sql`source_id`)
})

/** Cost so far of several orders, in four statements. */
export async function costByOrder(db: Reader, orderIds: number[]): Promise<Map<number, number>> {
  const costs = new Map<number, number>()
  if (!orderIds.length) return costs
  const labour = await db
    .select({ orderId: stints.orderId, cost: sql<string>`coalesce(sum(${stints.costMinor}), 0)` })
    .from(stints)
    .where(inArray(stints.orderId, orderIds))
    .groupBy(stints.orderId)
  const used = await db
    .select({ orderId: stockMovements.orderId, cost: sql<string>`coalesce(sum(round(-${stockMovements.quantity} * ${CHARGED})), 0)` })
    .from(stockMovements)
    .where(inArray(stockMovements.orderId, orderIds))
    .groupBy(stockMovements.orderId)
  const billed = await db
    .select({ orderId: vendorBills.orderId, cost: sql<string>`coalesce(sum(${vendorBillLines.amountMinor}), 0)` })
    .from(vendorBills)
    .innerJoin(vendorBillLines, eq(vendorBillLines.billId, vendorBills.id))
    .where(inArray(vendorBills.orderId, orderIds))
    .groupBy(vendorBills.orderId)
  const lent = await db
    .select({ orderId: bookings.orderId, cost: sql<string>`coalesce(sum(${HIRE}), 0)` })
    .from(bookings)
    .where(and(inArray(bookings.orderId, orderIds), isHired))
    .groupBy(bookings.orderId)
  for (const { orderId, cost } of [...labour, ...used, ...billed, ...lent]) if (orderId) costs.set(orderId, (costs.get(orderId) ?? 0) + Number(cost))
  return costs
}

/** What the orders that fit cost, by the year in which they were finished (UTC) and the kind of cost. Five statements at once. */
export async function costByYear(
  db: Reader,
  which: SQL,
): Promise<{ year: number; labourMinor: number; partsMinor: number; equipmentMinor: number; vendorMinor: number; orders: number }[]> {
  const year = sql<number>`year(${orders.finishedAt})`
  const sum = (of: SQL) => sql<string>`coalesce(sum(${of}), 0)`
  const [counted, labour, used, billed, lent] = await Promise.all([
    db
      .select({ year, n: sql<string>`count(*)` })
      .from(orders)
      .where(which)
      .groupBy(year),
    db
      .select({ year, n: sum(sql`${stints.costMinor}`) })
      .from(orders)
      .innerJoin(stints, eq(stints.orderId, orders.id))
      .where(which)
      .groupBy(year),
    db
      .select({ year, n: sum(sql`round(-${stockMovements.quantity} * ${CHARGED})`) })
      .from(orders)
      .innerJoin(stockMovements, eq(stockMovements.orderId, orders.id))
      .where(which)
      .groupBy(year),
    db
      .select({ year, n: sum(sql`${vendorBillLines.amountMinor}`) })
      .from(orders)
      .innerJoin(vendorBills, eq(vendorBills.orderId, orders.id))
      .innerJoin(vendorBillLines, eq(vendorBillLines.billId, vendorBills.id))
      .where(which)
      .groupBy(year),
    db
      .select({ year, n: sum(HIRE) })
      .from(orders)
      .innerJoin(bookings, and(eq(bookings.orderId, orders.id), isHired))
      .where(which)
      .groupBy(year),
  ])
  const amountIn = (rows: { year: number; n: string }[], of: number) => Number(rows.find((row) => row.year === of)?.n ?? 0)
  return counted
    .map(({ year: of, n }) => ({
      year: of,
      labourMinor: amountIn(labour, of),
      partsMinor: amountIn(used, of),
      equipmentMinor: amountIn(lent, of),
      vendorMinor: amountIn(billed, of),
      orders: Number(n),
    }))
    .sort((a, b) => a.year - b.year)
}
