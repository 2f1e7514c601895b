import { and, eq, gt, isNull, lt, ne, or } from 'drizzle-orm'
import * as contract from '#contract/field'
import { correctedStint } from '#core/field'
import { notFound } from '#server/kit'
import { calendarOf } from '#server/orders'
import { orders, stints, technicians } from '../tables'
import { jobCommand } from './jobCommand'
import { reckonStint } from './stint'

const DAY = 86_400_000

export default jobCommand(contract.correctStint, async ({ tx, who, input, visit, order, at, tell }) => {
  const technicianId = who.technicianId!
  // Two phones of one person come one after another.
  await tx.select({ id: technicians.id }).from(technicians).where(eq(technicians.id, technicianId)).for('update')
  const [mine] = await tx
    .select()
    .from(stints)
    .where(and(eq(stints.id, input.stintId), eq(stints.visitId, visit.id), eq(stints.technicianId, technicianId)))
  if (!mine) throw notFound('time')
  const asked = { startAt: new Date(input.startAt), endAt: new Date(input.endAt) }
  const others = await tx
    .select({ startAt: stints.startAt, endAt: stints.endAt, number: orders.number })
    .from(stints)
    .innerJoin(orders, eq(orders.id, stints.orderId))
    .where(
      and(
        eq(stints.technicianId, technicianId),
        ne(stints.id, mine.id),
        lt(stints.startAt, asked.endAt),
        or(isNull(stints.endAt), gt(stints.endAt, new Date(asked.startAt.getTime() - DAY))),
      ),
    )
  const { zone } = await calendarOf(tx, order.siteId)
  correctedStint({ ...mine, orderState: order.state }, asked, others, at, zone)
  const minutes = await reckonStint(tx, order, visit, mine, asked)
  await tell({
    kind: 'field.correct',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    reason: input.reason,
    details: {
      stint: mine.kind,
      minutes,
      fromStart: mine.startAt.toISOString(),
      fromEnd: mine.endAt!.toISOString(),
      start: asked.startAt.toISOString(),
      end: asked.endAt.toISOString(),
    },
  })
})
