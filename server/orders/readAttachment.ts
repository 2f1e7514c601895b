import { and, eq, inArray, ne } from 'drizzle-orm'
import * as contract from '#contract/orders'
import { SEEN_IN_FIELD } from '#core/orders'
import { canAt, delivery, notFound } from '#server/kit'
import type { Asker, Db } from '#server/kit'
import { attachments, findingPhotos, findings, orders, visits } from '../tables'
import { isForCrew } from '#server/talk/records'
import { sendFile } from './sendFile'

export default delivery(contract.readAttachment, async ({ db, who, input, response }) => {
  const [file] = await db.select().from(attachments).where(eq(attachments.id, input.id))
  const mayOpen =
    file && (canAt(who, 'desk.read', file.siteId) || ((await isForCrew(db, file.messageId)) && (await isOnMyJob(db, who, await ordersShowing(db, file)))))
  if (!mayOpen) throw notFound('file')
  await sendFile(db, response, file, input.small)
})

/** The order it belongs to, and those that are to put right what it shows. */
async function ordersShowing(db: Db, file: { id: number; orderId: number | null }): Promise<number[]> {
  const found = await db
    .select({ id: findings.followUpOrderId })
    .from(findingPhotos)
    .innerJoin(findings, eq(findings.id, findingPhotos.findingId))
    .where(eq(findingPhotos.attachmentId, file.id))
  return [file.orderId, ...found.map(({ id }) => id)].filter((id) => id !== null)
}

/** A technician sees the pictures of approved orders they are or were sent to, at whichever site; any of their visits counts. */
async function isOnMyJob(db: Db, who: Asker, orderIds: number[]): Promise<boolean> {
  if (!orderIds.length || !who.technicianId) return false
  const [mine] = await db
    .select({ id: visits.id })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(
      and(
        inArray(visits.orderId, orderIds),
        eq(visits.technicianId, who.technicianId),
        ne(visits.state, 'recalled'),
        inArray(orders.state, [...SEEN_IN_FIELD]),
      ),
    )
    .limit(1)
  return mine !== undefined
}
