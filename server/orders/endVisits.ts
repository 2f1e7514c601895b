import { and, eq, inArray, isNull } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { vendorPasses, visits } from '../tables'
import { liveVisit } from './facts'

/** Takes back what was planned: nobody is expected any more, and vendor passes stop working. Answers the technicians it was taken from. */
export async function endLiveVisits(tx: Tx, orderId: number, now: Date): Promise<number[]> {
  const live = await tx
    .select({ id: visits.id, technicianId: visits.technicianId })
    .from(visits)
    .where(and(eq(visits.orderId, orderId), liveVisit))
  if (!live.length) return []
  const ids = live.map((visit) => visit.id)
  await tx.update(visits).set({ state: 'recalled', endedAt: now }).where(inArray(visits.id, ids))
  await tx
    .update(vendorPasses)
    .set({ revokedAt: now })
    .where(and(inArray(vendorPasses.visitId, ids), isNull(vendorPasses.revokedAt)))
  return live.flatMap((visit) => visit.technicianId ?? [])
}
