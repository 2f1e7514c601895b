import { eq } from 'drizzle-orm'
import * as contract from '#contract/dispatch'
import { refuse } from '#core/kit'
import { canAt, command, conflict, maySee, notAllowed, notFound } from '#server/kit'
import { lockOrderById } from '#server/orders'
import { visits } from '../tables'
import { askingOf } from './asking'
import { answerVisit } from './records'

/** The time a vendor proposed is not taken: they are asked again for the one that is planned. */
export default command(contract.keepTime, async ({ tx, who, input, now, tell }) => {
  const [found] = await tx.select({ orderId: visits.orderId }).from(visits).where(eq(visits.id, input.visitId))
  const order = found && (await lockOrderById(tx, found.orderId))
  if (!order || !maySee(who, order.siteId)) throw notFound('visit')
  if (!canAt(who, 'orders.dispatch', order.siteId)) throw notAllowed()
  const [visit] = (await tx.select().from(visits).where(eq(visits.id, input.visitId)).for('update')) as [typeof visits.$inferSelect]
  if (visit.version !== input.version) throw conflict(visit.version, [{ field: 'answer', theirs: visit.answer, yours: null }])
  if (visit.vendorId === null || visit.state !== 'planned' || visit.answer !== 'proposed') refuse('not_proposed', 'No other time is proposed any more.')
  await answerVisit(tx, visit, await askingOf(tx, order, visit.plannedStart, now))
  await tell({
    kind: 'vendor.keepTime',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    reason: input.note?.trim() || null,
    details: { visitId: visit.id, vendorId: visit.vendorId },
  })
  return { id: order.id, version: order.version, state: order.state }
})
