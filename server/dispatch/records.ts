import { and, eq, inArray, isNull } from 'drizzle-orm'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import type { VisitResult } from '#core/dispatch'
import type { Tx } from '#server/kit'
import { vendorPasses, visits } from '../tables'

/**
 * The second door of this room: what other rooms write to visits and passes in their own transaction. It
 * knows tables and kit only, so that rooms which this one builds on may come in by it.
 */
export type VisitRecord = typeof visits.$inferSelect

/** Visits at which somebody is, or is expected. */
export const liveVisit = inArray(visits.state, LIVE_VISIT_STATES)

/** Takes back what was planned: nobody is expected any more, and vendor passes stop working. Answers the technicians it was taken from. */
export async function recallVisits(tx: Tx, orderId: number, now: Date): Promise<number[]> {
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

/** Somebody has arrived. */
export async function beginVisit(tx: Tx, visit: VisitRecord, now: Date): Promise<void> {
  await saveVisit(tx, visit, { state: 'on_site', startedAt: now })
}

/** Whoever was there has left. */
export async function endVisit(tx: Tx, visit: VisitRecord, result: VisitResult, now: Date): Promise<void> {
  await saveVisit(tx, visit, { state: 'ended', endedAt: now, result })
}

async function saveVisit(tx: Tx, visit: VisitRecord, changed: Partial<VisitRecord>): Promise<void> {
  await tx
    .update(visits)
    .set({ ...changed, version: visit.version + 1 })
    .where(eq(visits.id, visit.id))
}

/** The pass to a visit, unless it was taken back, works until then. */
export async function keepPassUntil(tx: Tx, visitId: number, expiresAt: Date): Promise<void> {
  await tx
    .update(vendorPasses)
    .set({ expiresAt })
    .where(and(eq(vendorPasses.visitId, visitId), isNull(vendorPasses.revokedAt)))
}
