import { eq } from 'drizzle-orm'
import { SEEN_IN_FIELD } from '#core/orders'
import { notFound, ProblemReply, statement } from '#server/kit'
import type { Asker, Reader, Tx } from '#server/kit'
import { lockOrderById } from '#server/orders'
import { orders, visits } from '../tables'

/** Whoever had it may know that. */
const takenBack = () =>
  new ProblemReply(404, 'Taken back', 'The desk took this job back from you.', {
    reasons: [{ code: 'taken_back', sentence: 'The desk took this job back from you.' }],
  })

const find = statement(['visitId'], (db, { visitId }) =>
  db.select({ visit: visits, order: orders }).from(visits).innerJoin(orders, eq(orders.id, visits.orderId)).where(eq(visits.id, visitId)),
)

/** One of this technician's visits with its order. @throws ProblemReply 404 for anybody else's, or before approval */
export async function myVisit(db: Reader, who: Asker, visitId: number) {
  const [found] = await find(db, { visitId })
  const mine = found && who.technicianId !== null && found.visit.technicianId === who.technicianId
  if (mine && found.visit.state === 'recalled') throw takenBack()
  if (!mine || !(SEEN_IN_FIELD.includes(found.order.state) || found.visit.state === 'ended')) throw notFound('job')
  return found
}

/** The same, with the order locked for a change. */
export async function lockMyVisit(tx: Tx, who: Asker, visitId: number) {
  const { order } = await myVisit(tx, who, visitId)
  await lockOrderById(tx, order.id)
  // As both stand once nobody else changes them.
  return myVisit(tx, who, visitId)
}
