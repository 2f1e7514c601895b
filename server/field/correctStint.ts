import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/field'
import { correctedStint } from '#core/field'
import { notFound } from '#server/kit'
import { calendarOf } from '#server/orders'
import { stints } from '../tables'
import { jobCommand } from './jobCommand'
import { othersOf, reckonStint } from './stint'

export default jobCommand(contract.correctStint, async ({ tx, who, input, visit, order, at, tell }) => {
  const technicianId = who.technicianId!
  const asked = { startAt: new Date(input.startAt), endAt: new Date(input.endAt) }
  const others = await othersOf(tx, technicianId, asked, null, input.stintId)
  const [mine] = await tx
    .select()
    .from(stints)
    .where(and(eq(stints.id, input.stintId), eq(stints.visitId, visit.id), eq(stints.technicianId, technicianId)))
  if (!mine) throw notFound('time')
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
