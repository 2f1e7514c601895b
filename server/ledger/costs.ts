import { and, eq, gt, inArray, sql } from 'drizzle-orm'
import { chargedHours, lineAmount } from '#core/kit'
import type { CostLine } from '#core/ledger'
import { CHARGED_STINTS, STINT_KIND_NAMES } from '#core/ledger'
import type { Reader } from '#server/kit'
import { accounts, parts, people, stints, stockMovements, technicians, vendorBillLines, vendorBills, vendors } from '../tables'

/** Every cost on an order, traceable to its stint, movement or bill line. Three statements. */
export async function costLinesOf(db: Reader, orderId: number): Promise<CostLine[]> {
  const labour = await db
    .select({ id: stints.id, kind: stints.kind, minutes: stints.minutes, perHour: stints.perHourMinor, cost: stints.costMinor, name: people.name })
    .from(stints)
    .innerJoin(technicians, eq(technicians.id, stints.technicianId))
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(eq(stints.orderId, orderId), inArray(stints.kind, CHARGED_STINTS), gt(stints.minutes, 0)))
    .orderBy(stints.startAt)
  const used = await db
    .select({ id: stockMovements.id, name: parts.name, unit: parts.unit, quantity: stockMovements.quantity, unitCost: stockMovements.unitCostMinor })
    .from(stockMovements)
    .innerJoin(parts, eq(parts.id, stockMovements.partId))
    .where(and(eq(stockMovements.orderId, orderId), inArray(stockMovements.kind, ['issue', 'return'])))
    .orderBy(stockMovements.at)
  const billed = await db
    .select({
      id: vendorBillLines.id,
      description: vendorBillLines.description,
      quantity: vendorBillLines.quantity,
      unitPrice: vendorBillLines.unitPriceMinor,
      amount: vendorBillLines.amountMinor,
      vendorId: vendorBills.vendorId,
      vendor: vendors.name,
    })
    .from(vendorBillLines)
    .innerJoin(vendorBills, eq(vendorBills.id, vendorBillLines.billId))
    .innerJoin(vendors, eq(vendors.id, vendorBills.vendorId))
    .where(eq(vendorBills.orderId, orderId))
    .orderBy(vendorBillLines.id)
  return [
    ...labour.map((stint): CostLine => ({
      kind: 'labour',
      sourceId: stint.id,
      description: `${stint.name}, ${STINT_KIND_NAMES[stint.kind].toLowerCase()}`,
      quantity: chargedHours(stint.minutes!),
      unit: 'h',
      unitCost: stint.perHour ?? 0,
      cost: stint.cost ?? 0,
      vendorId: null,
    })),
    ...used.map((part): CostLine => {
      const quantity = part.quantity.startsWith('-') ? part.quantity.slice(1) : `-${part.quantity}`
      return {
        kind: 'parts',
        sourceId: part.id,
        description: part.name,
        quantity,
        unit: part.unit,
        unitCost: part.unitCost,
        cost: lineAmount(quantity, part.unitCost),
        vendorId: null,
      }
    }),
    ...billed.map((line): CostLine => ({
      kind: 'vendor',
      sourceId: line.id,
      description: `${line.vendor}: ${line.description}`,
      quantity: line.quantity,
      unit: 'pc',
      unitCost: line.unitPrice,
      cost: line.amount,
      vendorId: line.vendorId,
    })),
  ]
}

/** Cost so far of several orders, in three statements. */
export async function costByOrder(db: Reader, orderIds: number[]): Promise<Map<number, number>> {
  const costs = new Map<number, number>()
  if (!orderIds.length) return costs
  const labour = await db
    .select({ orderId: stints.orderId, cost: sql<string>`coalesce(sum(${stints.costMinor}), 0)` })
    .from(stints)
    .where(inArray(stints.orderId, orderIds))
    .groupBy(stints.orderId)
  const used = await db
    .select({ orderId: stockMovements.orderId, cost: sql<string>`coalesce(sum(round(-${stockMovements.quantity} * ${stockMovements.unitCostMinor})), 0)` })
    .from(stockMovements)
    .where(inArray(stockMovements.orderId, orderIds))
    .groupBy(stockMovements.orderId)
  const billed = await db
    .select({ orderId: vendorBills.orderId, cost: sql<string>`coalesce(sum(${vendorBillLines.amountMinor}), 0)` })
    .from(vendorBills)
    .innerJoin(vendorBillLines, eq(vendorBillLines.billId, vendorBills.id))
    .where(inArray(vendorBills.orderId, orderIds))
    .groupBy(vendorBills.orderId)
  for (const { orderId, cost } of [...labour, ...used, ...billed]) if (orderId) costs.set(orderId, (costs.get(orderId) ?? 0) + Number(cost))
  return costs
}
