import { and, count, eq, gt, inArray, isNull, lt } from 'drizzle-orm'
import { LIVE_VISIT_STATES, nextVisitKind } from '#core/dispatch'
import type { VisitKind, VisitResult } from '#core/dispatch'
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

/** What a vendor has answered, or until when they may. */
export type Asking = Pick<VisitRecord, 'answer' | 'answeredAt' | 'answerNote' | 'proposedStart' | 'proposedEnd' | 'remindAt' | 'tellAt' | 'silentAt'>

/** A vendor answers, or is asked again. */
export async function answerVisit(tx: Tx, visit: VisitRecord, answer: Partial<Asking>): Promise<void> {
  await saveVisit(tx, visit, answer)
}

/** Somebody of the vendor says that they are there. */
export async function nameWhoIsThere(tx: Tx, visitId: number, { name, phone }: { name: string; phone: string | null }): Promise<void> {
  await tx.update(visits).set({ thereName: name, therePhone: phone }).where(eq(visits.id, visitId))
}

/** The clock has reminded, or told the desk: whoever moves the visit need not look again for that. */
export async function noteTold(tx: Tx, visitIds: readonly number[], which: 'remindAt' | 'tellAt', now: Date): Promise<void> {
  if (visitIds.length)
    await tx
      .update(visits)
      .set(which === 'tellAt' ? { tellAt: null, silentAt: now } : { remindAt: null })
      .where(inArray(visits.id, [...visitIds]))
}

/** Somebody has arrived. */
export async function beginVisit(tx: Tx, visit: VisitRecord, now: Date): Promise<void> {
  // Who is there has come, whatever they answered.
  const came = visit.vendorId === null ? {} : { answer: 'accepted' as const, answeredAt: visit.answer === 'accepted' ? visit.answeredAt : now }
  await saveVisit(tx, visit, { ...came, state: 'on_site', startedAt: now })
}

/** Whoever has the visit has read these hazards. */
export async function noteHazardsRead(tx: Tx, visit: VisitRecord, hazardsRead: string, at: Date): Promise<void> {
  await saveVisit(tx, visit, { hazardsRead, hazardsReadAt: at })
}

/** Whoever was there has left. */
export async function endVisit(tx: Tx, visit: VisitRecord, result: VisitResult, now: Date): Promise<void> {
  await saveVisit(tx, visit, { state: 'ended', endedAt: now, result })
}

/** Another time, another technician, or both; a vendor’s pass works as long after it as before. */
export async function moveVisit(
  tx: Tx,
  visit: VisitRecord,
  to: Pick<VisitRecord, 'technicianId' | 'plannedStart' | 'plannedEnd'> & Partial<Asking>,
): Promise<void> {
  await saveVisit(tx, visit, to)
  if (visit.vendorId) await keepPassUntil(tx, visit.id, passUntil(to.plannedEnd))
}

/** One more technician is to come, or the same one once more. @returns its id */
export async function addVisit(
  tx: Tx,
  order: { id: number; finishedAt: Date | null; fix: string | null },
  to: { technicianId: number; plannedStart: Date; plannedEnd: Date },
): Promise<number> {
  // Who goes along with somebody makes the same visit.
  const [along] = await tx
    .select({ kind: visits.kind })
    .from(visits)
    .where(and(eq(visits.orderId, order.id), liveVisit, lt(visits.plannedStart, to.plannedEnd), gt(visits.plannedEnd, to.plannedStart)))
  const kind = along?.kind ?? (await nextKindOf(tx, order))
  const [made] = await tx
    .insert(visits)
    .values({ orderId: order.id, kind, state: 'planned', ...to })
    .$returningId()
  return made!.id
}

/** What the next visit to an order is: the first, a return, or a follow-up of work that was done. */
export async function nextKindOf(tx: Tx, order: { id: number; finishedAt: Date | null; fix: string | null }): Promise<VisitKind> {
  const [before] = await tx.select({ n: count() }).from(visits).where(eq(visits.orderId, order.id))
  return nextVisitKind(before!.n, order.finishedAt !== null || order.fix !== null)
}

/** A visit that is not made after all. */
export async function dropVisit(tx: Tx, visit: VisitRecord, now: Date, answer: Partial<Asking> = {}): Promise<void> {
  await saveVisit(tx, visit, { ...answer, state: 'recalled', endedAt: now })
  await tx
    .update(vendorPasses)
    .set({ revokedAt: now })
    .where(and(eq(vendorPasses.visitId, visit.id), isNull(vendorPasses.revokedAt)))
}

/** A link that has ended gives way to another, which works as long as a first one does. */
export async function newPassLink(tx: Tx, passId: number, link: { nonce: string; hash: string }, now: Date): Promise<void> {
  await tx
    .update(vendorPasses)
    .set({ nonce: link.nonce, tokenHash: link.hash, renewedAt: now, expiresAt: passUntil(now) })
    .where(eq(vendorPasses.id, passId))
}

const PASS_DAYS = 14
/** A vendor’s link works for two weeks after the visit. */
export const passUntil = (plannedEnd: Date): Date => new Date(plannedEnd.getTime() + PASS_DAYS * 86_400_000)

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
