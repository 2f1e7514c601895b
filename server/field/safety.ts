import { asc, eq } from 'drizzle-orm'
import { hazardsAsRead, refuseUnsafe } from '#core/field'
import type { StintKind } from '#core/ledger'
import type { VisitRecord } from '#server/dispatch/records'
import { statement } from '#server/kit'
import type { Reader, Tx } from '#server/kit'
import { orderPlans, permits } from '../tables'

const planOf = statement(['orderId'], (db, { orderId }) => db.select({ hazards: orderPlans.hazards }).from(orderPlans).where(eq(orderPlans.orderId, orderId)))
const permitsOf = statement(['orderId'], (db, { orderId }) =>
  db
    .select({ id: permits.id, kind: permits.kind, number: permits.number, fromAt: permits.fromAt, untilAt: permits.untilAt })
    .from(permits)
    .where(eq(permits.orderId, orderId))
    .orderBy(asc(permits.fromAt), asc(permits.id)),
)
export const hazardsOf = async (db: Reader, orderId: number) => (await planOf(db, { orderId }))[0]?.hazards ?? []

/** What is dangerous on a job, whether whoever has the visit has read it as it is now, and the permits held for it. */
export async function safetyOf(db: Reader, orderId: number, visit: Pick<VisitRecord, 'hazardsRead' | 'hazardsReadAt'>) {
  const [hazards, held] = [await hazardsOf(db, orderId), await permitsOf(db, { orderId })]
  return { hazards, hazardsReadAt: visit.hazardsRead === hazardsAsRead(hazards) ? visit.hazardsReadAt : null, permits: held }
}

/** @throws Refusal for work on what is dangerous before its hazards were read and its permits are held */
export async function refuseUnsafeStart(tx: Tx, orderId: number, visit: VisitRecord, kind: StintKind, at: Date): Promise<void> {
  const hazards = await hazardsOf(tx, orderId)
  if (hazards.length) refuseUnsafe(kind, hazards, visit.hazardsRead, await permitsOf(tx, { orderId }), at)
}
