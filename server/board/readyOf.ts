import Big from 'big.js'
import { and, eq, inArray, isNotNull, isNull, ne, sql } from 'drizzle-orm'
import { isToCome } from '#core/windows'
import { readyLines } from '#core/methods'
import type { PartStanding, ReadyLine } from '#core/methods'
import { closureStanding } from '#core/closures'
import { toCome } from '#core/stock'
import type { Reader } from '#server/kit'
import type { OrderRecord } from '#server/orders'
import { levelsWhere } from '#server/stock'
import {
  assets,
  bookings,
  closures,
  equipment,
  orderPlans,
  orderSteps,
  parts,
  places,
  purchaseLines,
  purchases,
  reservations,
  stockLevels,
  stockMovements,
  stores,
  timeOffers,
  vendors,
} from '../tables'

/**
 * What stands between each of these orders and its dispatch, by the same rule as on the Sheet; all of one site. What is
 * booked in their spaces is asked of the bookings system on the Sheet alone. Eleven statements, however many orders there are.
 */
export async function readyOf(db: Reader, orders: readonly OrderRecord[], now: Date): Promise<Map<number, ReadyLine[]>> {
  if (!orders.length) return new Map()
  const ids = orders.map(({ id }) => id)
  const assetIds = orders.flatMap(({ assetId }) => assetId ?? [])
  const [plans, kept, taken, first, booked, offers, closed, owned] = await Promise.all([
    db.select().from(orderPlans).where(inArray(orderPlans.orderId, ids)),
    db.select().from(reservations).where(inArray(reservations.orderId, ids)),
    db
      .select({ orderId: stockMovements.orderId, partId: stockMovements.partId, n: sql<string>`sum(-${stockMovements.quantity})` })
      .from(stockMovements)
      .where(inArray(stockMovements.orderId, ids))
      .groupBy(stockMovements.orderId, stockMovements.partId),
    db
      .select({ orderId: orderSteps.orderId, text: orderSteps.text })
      .from(orderSteps)
      .where(and(inArray(orderSteps.orderId, ids), eq(orderSteps.first, true), eq(orderSteps.state, 'open')))
      .orderBy(orderSteps.position),
    db
      .select({ orderId: bookings.orderId, equipmentId: bookings.equipmentId })
      .from(bookings)
      .where(and(inArray(bookings.orderId, ids), ne(bookings.state, 'cancelled'))),
    db.select().from(timeOffers).where(inArray(timeOffers.orderId, ids)).orderBy(timeOffers.id),
    db
      .select({ closure: closures, code: places.code, name: places.name })
      .from(closures)
      .innerJoin(places, eq(places.id, closures.placeId))
      .where(and(inArray(closures.orderId, ids), eq(closures.told, 'waiting'))),
    assetIds.length
      ? db
          .select({ id: assets.id, tag: assets.tag, name: assets.name, until: assets.warrantyUntil, vendorId: vendors.id, vendor: vendors.name })
          .from(assets)
          .innerJoin(vendors, eq(vendors.id, assets.vendorId))
          .where(inArray(assets.id, assetIds))
      : [],
  ])
  const partIds = [...new Set(plans.flatMap((plan) => plan.parts.map(({ partId }) => partId)))]
  const toolIds = [...new Set(plans.flatMap((plan) => plan.tools.flatMap(({ equipmentId }) => equipmentId ?? [])))]
  const [named, levels, tools, bought] = await Promise.all([
    partIds.length ? db.select({ id: parts.id, name: parts.name, unit: parts.unit }).from(parts).where(inArray(parts.id, partIds)) : [],
    partIds.length ? levelsWhere(db, and(inArray(stockLevels.partId, partIds), eq(stores.siteId, orders[0]!.siteId), isNull(stores.retiredAt))) : [],
    toolIds.length ? db.select({ id: equipment.id, name: equipment.name }).from(equipment).where(inArray(equipment.id, toolIds)) : [],
    partIds.length
      ? db
          .select({ line: purchaseLines, state: purchases.state, expectedOn: purchases.expectedOn })
          .from(purchaseLines)
          .innerJoin(purchases, eq(purchases.id, purchaseLines.purchaseId))
          .where(and(inArray(purchaseLines.orderId, ids), eq(purchases.state, 'ordered'), isNotNull(purchases.expectedOn)))
      : [],
  ])
  const today = now.toISOString().slice(0, 10)
  const sum = (rows: { quantity: string }[]) => rows.reduce((all, { quantity }) => all.plus(quantity), new Big(0)).toString()

  const standingOf = (order: OrderRecord, planned: { partId: number; quantity: string }[]): PartStanding[] =>
    [...new Set(planned.map(({ partId }) => partId))].flatMap((partId) => {
      const part = named.find((one) => one.id === partId)
      if (!part) return []
      return [
        {
          name: part.name,
          unit: part.unit,
          planned: sum(planned.filter((one) => one.partId === partId)),
          reserved: sum(kept.filter((one) => one.orderId === order.id && one.partId === partId)),
          issued: taken.find((one) => one.orderId === order.id && one.partId === partId)?.n ?? '0',
          free: levels
            .filter((level) => level.partId === partId)
            .reduce((all, { free }) => all.plus(free), new Big(0))
            .toString(),
          coming: bought
            .filter(({ line }) => line.orderId === order.id && line.partId === partId)
            .map(({ line, state, expectedOn }) => ({ state, expectedOn, quantity: toCome(line), forThis: true })),
        },
      ]
    })

  return new Map(
    orders.map((order) => {
      const plan = plans.find((one) => one.orderId === order.id)
      const wanted = new Set((plan?.tools ?? []).flatMap(({ equipmentId }) => equipmentId ?? []))
      for (const { orderId, equipmentId } of booked) if (orderId === order.id) wanted.delete(equipmentId)
      const asset = owned.find((one) => one.id === order.assetId)
      const offer = offers.filter((one) => one.orderId === order.id).at(-1)
      const passed = offer?.state === 'open' && !offer.times.some(({ from, until }) => isToCome({ from: new Date(from), until: new Date(until) }, now))
      const facts = {
        state: order.state,
        outgrownMinor: order.outgrownMinor,
        estimateMinor: order.estimateMinor,
        stepsFirst: first.filter(({ orderId }) => orderId === order.id).map(({ text }) => text),
        contactName: order.contactName,
        access: order.access,
      }
      const lines = readyLines(facts, standingOf(order, plan?.parts ?? []), plan?.hazards ?? [], {
        unbooked: tools.filter(({ id }) => wanted.has(id)).map(({ name }) => name),
        warranty:
          asset?.until && asset.until >= today && asset.vendorId !== order.vendorId
            ? { asset: `${asset.tag} ${asset.name}`, vendor: asset.vendor, until: asset.until }
            : null,
        agreed: order.windowFrom !== null,
        offered:
          offer && (offer.state === 'open' || offer.state === 'none_fits')
            ? { name: offer.name, state: offer.state === 'none_fits' ? 'none_fits' : passed ? 'passed' : 'waits' }
            : null,
        untold: closed
          .filter(({ closure }) => closure.orderId === order.id && closure.problem !== null)
          .filter(({ closure }) => ['ahead', 'running'].includes(closureStanding({ state: closure.state, from: closure.fromAt, until: closure.untilAt }, now)))
          .map(({ code, name }) => `${code} ${name}`),
      })
      return [order.id, lines] as const
    }),
  )
}
