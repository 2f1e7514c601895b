import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/orders'
import { SEEN_IN_FIELD } from '#core/orders'
import { can, delivery, maySee, notFound } from '#server/kit'
import type { Asker, Db } from '#server/kit'
import { attachments, orders, visits } from '../tables'
import { sendFile } from './sendFile'

export default delivery(contract.readAttachment, async ({ db, who, input, response }) => {
  const [file] = await db.select().from(attachments).where(eq(attachments.id, input.id))
  if (!file || !maySee(who, file.siteId)) throw notFound('file')
  if (!can(who, 'desk.read') && !(await isOnMyJob(db, who, file.orderId))) throw notFound('file')
  sendFile(response, file, input.small)
})

/** A technician sees the pictures of orders they are or were sent to, once approved. */
async function isOnMyJob(db: Db, who: Asker, orderId: number | null): Promise<boolean> {
  if (!orderId || !who.technicianId) return false
  const [mine] = await db
    .select({ state: orders.state, visitState: visits.state })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(and(eq(visits.orderId, orderId), eq(visits.technicianId, who.technicianId)))
  return mine !== undefined && mine.visitState !== 'recalled' && SEEN_IN_FIELD.includes(mine.state)
}
