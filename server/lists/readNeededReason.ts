import { and, eq, inArray, isNull, sql } from 'drizzle-orm'
import * as contract from '#contract/lists'
import { neededReason } from '#core/orders'
import type { OrderMove, OrderRules } from '#core/orders'
import { query, withinSites } from '#server/kit'
import { ownIn, rulesOf } from '#server/orders'
import { assets, orders, orderShares, ownFields, ownValues, places } from '../tables'

const DAY_MS = 86_400_000

export default query(contract.readNeededReason, async ({ db, who, input, now }) => {
  if (input.move === 'archive' || input.move === 'restore') return { needed: false, answers: [] }
  const ids = input.ids.split(',').map(Number)
  const rows = await db
    .select({
      order: orders,
      path: sql<
        string | null
      >`coalesce(${places.path}, (select p.path from ${assets} join place p on p.id = ${assets.placeId} where ${assets.id} = ${orders.assetId}))`,
    })
    .from(orders)
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(and(inArray(orders.id, ids), withinSites(who, orders.siteId)))
  const shares = await db
    .select({ orderId: orderShares.orderId, payerId: orderShares.payerId, shareBp: orderShares.shareBp })
    .from(orderShares)
    .where(inArray(orderShares.orderId, ids))
  const own = await db
    .select({ orderId: orders.id, fieldId: ownFields.id, text: ownValues.text, number: ownValues.number, day: ownValues.day })
    .from(orders)
    .innerJoin(ownFields, and(eq(ownFields.kind, 'orders'), isNull(ownFields.retiredAt)))
    .leftJoin(ownValues, and(eq(ownValues.fieldId, ownFields.id), eq(ownValues.recordId, orders.id)))
    .where(inArray(orders.id, ids))
  const rules = new Map<number, OrderRules>()
  for (const siteId of new Set(rows.map((row) => row.order.siteId))) {
    const book = await rulesOf(db, siteId)
    rules.set(siteId, { ...book, onSpotMinor: book.planning.onSpotMinor })
  }
  const needs = rows.map(({ order, path }) =>
    neededReason(
      {
        state: order.state,
        kind: order.kind,
        priority: order.priority,
        estimateMinor: order.estimateMinor,
        placePath: (path ?? '').split('/').filter(Boolean).map(Number),
        shares: shares.filter((share) => share.orderId === order.id),
        ageDays: Math.floor((now.getTime() - order.createdAt.getTime()) / DAY_MS),
        own: ownIn(own.filter((one) => one.orderId === order.id)),
        rules: rules.get(order.siteId)!,
      },
      input.move as OrderMove,
    ),
  )
  const lists = needs.filter((need) => need.answers.length).map((need) => need.answers)
  // One reason is written for all: it has to be on every list there is.
  const answers = lists.length ? lists[0]!.filter((answer) => lists.every((list) => list.includes(answer))) : []
  return { needed: needs.some((need) => need.needed), answers }
})
