import { and, count, eq, gte, inArray, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/board'
import { firstFit, KNOWN_MONTHS, presenceOf, rankFits } from '#core/board'
import { maySee, mySite, notFound, query } from '#server/kit'
import { windowOf } from '#server/orders'
import { orderPlans, orders, places, trades, visits } from '../tables'
import { waysBetween } from '#server/travel'
import { crewOf } from './crewOf'
import { daysFrom, firstDay } from './days'
import { readyOf } from './readyOf'
import { asTechnician, visitsOf } from './visitsOf'

export default query(contract.listBestFits, async ({ db, who, input, now }) => {
  const site = await mySite(db, who, input.siteId)
  const { zone } = site
  const [found] = await db
    .select({ order: orders, path: places.path, trade: trades.name, labour: orderPlans.labour })
    .from(orders)
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(trades, eq(trades.id, orders.tradeId))
    .leftJoin(orderPlans, eq(orderPlans.orderId, orders.id))
    .where(eq(orders.id, input.orderId))
  if (!found || found.order.siteId !== site.id || !maySee(who, site.id)) throw notFound('order')
  const { order, path, trade, labour } = found
  const days = daysFrom(firstDay(input.first, now, zone), input.days ?? 1)
  const crew = await crewOf(db, site.id, days)
  const ids = crew.map(({ id }) => id)
  const since = DateTime.fromJSDate(now).minus({ months: KNOWN_MONTHS }).toJSDate()
  const [planned, known] = await Promise.all([
    visitsOf(db, ids, days[0]!.toJSDate(), days.at(-1)!.plus({ days: 1 }).toJSDate(), now),
    order.assetId && ids.length
      ? db
          .select({ technicianId: visits.technicianId, times: count() })
          .from(visits)
          .innerJoin(orders, eq(orders.id, visits.orderId))
          .where(
            and(
              eq(orders.assetId, order.assetId),
              inArray(visits.technicianId, ids),
              eq(visits.state, 'ended'),
              gte(visits.endedAt, since),
              ne(orders.id, order.id),
            ),
          )
          .groupBy(visits.technicianId)
      : [],
  ])
  // What speaks against it at any time decides between nobody; what is on its way does.
  const coming = ((await readyOf(db, [order], now)).get(order.id) ?? []).filter(({ code }) => code === 'coming')
  const { minutes, skills } = presenceOf(labour, order.tradeId)
  const job = { tradeId: order.tradeId, trade, skills, path, window: windowOf(order), target: order.completionDueAt, between: coming }
  const way = await waysBetween(db, [path, ...planned.map((one) => one.path)])
  const fits = crew.flatMap((member) => {
    const mine = planned.filter(({ technicianId }) => technicianId === member.id)
    const who = asTechnician(member, mine)
    const fit = firstFit(job, who, minutes, now, zone, way)
    if (!fit) return []
    return [{ technicianId: member.id, who, fit, times: known.find((row) => row.technicianId === member.id)?.times ?? 0 }]
  })
  return {
    rows: rankFits(job, fits, zone, way).map(({ technicianId, who, fit, because }) => ({
      technicianId,
      name: who.name,
      start: fit.at.from,
      end: fit.at.until,
      because,
    })),
  }
})
