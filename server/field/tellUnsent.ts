import { eq } from 'drizzle-orm'
import * as contract from '#contract/field'
import { command, notFound, recordEvent } from '#server/kit'
import { orders, visits } from '../tables'
import { momentFor } from './jobCommand'

/** Also of a job that was taken back meanwhile: what was done on it is known to whoever did it alone. */
export default command(contract.tellUnsent, async ({ tx, who, input, now }) => {
  const [found] = await tx
    .select({ technicianId: visits.technicianId, orderId: orders.id, siteId: orders.siteId })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(eq(visits.id, input.visitId))
  if (!found || who.technicianId === null || found.technicianId !== who.technicianId) throw notFound('job')
  const { at, actor } = momentFor(who, input.happenedAt, now)
  const { orderId, siteId } = found
  await recordEvent(tx, actor, at, { kind: 'field.unsent', siteId, orderId, visitId: input.visitId, details: { what: input.what, why: input.why } })
  return { told: now }
})
