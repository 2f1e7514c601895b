import Big from 'big.js'
import { and, eq, inArray, sql } from 'drizzle-orm'
import type { JobEquipment, JobSheet, PlannedPart } from '#contract/field'
import { toCome } from '#core/stock'
import type { Outgoing, Reader } from '#server/kit'
import { bookings, equipment, orderPlans, parts, purchaseLines, purchases, reservations, stockMovements, stores } from '../tables'

interface OfJob {
  parts: Outgoing<JobSheet['parts']>
  planned: PlannedPart[]
  asked: Outgoing<JobSheet['asked']>
  equipment: Outgoing<JobEquipment>[]
}

/** Parts and equipment of a job: what is planned, kept, taken, asked for and booked. */
export async function materialsOfJob(db: Reader, orderId: number): Promise<OfJob> {
  const [taken, [plan], kept, coming, booked] = await Promise.all([
    db
      .select({
        id: stockMovements.id,
        partId: parts.id,
        code: parts.code,
        name: parts.name,
        quantity: sql<string>`-${stockMovements.quantity}`,
        unit: parts.unit,
      })
      .from(stockMovements)
      .innerJoin(parts, eq(parts.id, stockMovements.partId))
      .where(eq(stockMovements.orderId, orderId))
      .orderBy(stockMovements.id),
    db.select({ parts: orderPlans.parts }).from(orderPlans).where(eq(orderPlans.orderId, orderId)),
    db
      .select({ partId: reservations.partId, storeId: stores.id, store: stores.name, quantity: reservations.quantity })
      .from(reservations)
      .innerJoin(stores, eq(stores.id, reservations.storeId))
      .where(eq(reservations.orderId, orderId)),
    db
      .select({ partId: parts.id, name: parts.name, unit: parts.unit, quantity: purchaseLines.quantity, received: purchaseLines.received })
      .from(purchaseLines)
      .innerJoin(purchases, eq(purchases.id, purchaseLines.purchaseId))
      .innerJoin(parts, eq(parts.id, purchaseLines.partId))
      .where(and(eq(purchaseLines.orderId, orderId), inArray(purchases.state, ['asked', 'ordered'])))
      .orderBy(purchaseLines.id),
    db
      .select({ equipmentId: equipment.id, tag: equipment.tag, name: equipment.name, state: bookings.state, has: bookings.outTo, until: bookings.untilAt })
      .from(bookings)
      .innerJoin(equipment, eq(equipment.id, bookings.equipmentId))
      .where(and(eq(bookings.orderId, orderId), inArray(bookings.state, ['booked', 'out', 'back'])))
      .orderBy(bookings.fromAt),
  ])
  return {
    parts: taken,
    planned: await plannedOf(db, plan?.parts ?? [], taken, kept),
    asked: coming.flatMap(({ received, ...line }) => {
      const quantity = toCome({ ...line, received })
      return quantity === '0' ? [] : [{ ...line, quantity }]
    }),
    // One piece is one line: how it stands now.
    equipment: [...new Map(booked.map((one) => [one.equipmentId, { ...one, has: one.state === 'out' ? one.has : null }])).values()],
  }
}

type Kept = PlannedPart['kept'][number] & { partId: number }

async function plannedOf(
  db: Reader,
  planned: readonly { partId: number; quantity: string }[],
  taken: readonly { partId: number; quantity: string }[],
  kept: readonly Kept[],
): Promise<PlannedPart[]> {
  const left = new Map<number, Big>()
  for (const { partId, quantity } of planned) left.set(partId, (left.get(partId) ?? new Big(0)).plus(quantity))
  for (const { partId, quantity } of taken) if (left.has(partId)) left.set(partId, left.get(partId)!.minus(quantity))
  const ids = [...left].flatMap(([partId, quantity]) => (quantity.gt(0) ? [partId] : []))
  if (!ids.length) return []
  const named = await db.select({ id: parts.id, code: parts.code, name: parts.name, unit: parts.unit }).from(parts).where(inArray(parts.id, ids))
  return named.map(({ id, ...part }) => ({
    partId: id,
    ...part,
    quantity: left.get(id)!.toString(),
    kept: kept.flatMap(({ partId, ...store }) => (partId === id ? [store] : [])),
  }))
}
