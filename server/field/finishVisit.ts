import { and, count, eq, isNull, ne } from 'drizzle-orm'
import type { FinishJob } from '#contract/field'
import { refuse } from '#core/kit'
import { moveOrder } from '#core/orders'
import { endVisit, keepPassUntil, liveVisit } from '#server/dispatch/records'
import type { VisitRecord } from '#server/dispatch/records'
import { nobody, recordEvent } from '#server/kit'
import type { Tx } from '#server/kit'
import { leaveSpace } from '#server/readiness'
import { factsOf, heldTarget, lockOrderById, noteOutcome, openMembersOf, saveMove, takeOut } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { planPart } from '#server/methods/records'
import { accounts, parts, people, technicians, visits } from '../tables'
import { applyCallOutMinimum, stopClockOf } from './stint'
import type { Worker } from './stint'

/** How somebody leaves. Without the list of members an order leads, they are never kept waiting. */
export type Leaving = Omit<FinishJob, 'visitId'>

/** Ends a visit: the clock stops, and the order is done, held or back at the Desk, as the result says. */
export async function finishVisit(tx: Tx, worker: Worker, order: OrderRecord, visit: VisitRecord, leaving: Leaving, now: Date): Promise<void> {
  if (visit.state !== 'on_site') refuse('not_started', visit.state === 'ended' ? 'You have left this job already.' : 'Start the clock before you finish.')
  const { handTo, returnAt } = leaving
  const handedTo = leaving.result === 'handed_over' && handTo ? await nameTechnician(tx, order.siteId, handTo) : null
  await stopClockOf(tx, worker, order, visit, now)
  await applyCallOutMinimum(tx, visit)
  await endVisit(tx, visit, leaving.result, now)
  const outcome = {
    symptom: leaving.symptom || order.symptom,
    cause: leaving.cause || order.cause,
    fix: leaving.fix || order.fix,
    outcomeNote: leaving.note || order.outcomeNote,
  }
  await noteOutcome(tx, order.id, outcome)
  await recordEvent(tx, worker, now, {
    kind: 'field.leave',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    reason: leaving.note || null,
    details: { result: leaving.result, ...(leaving.result === 'return' && returnAt ? { returnAt } : {}), ...(handedTo ? { handTo: handedTo } : {}) },
  })
  await movedBy(tx, worker, { ...order, ...outcome }, visit, { ...leaving, handedTo }, now)
}

/** @throws Refusal for somebody who does not work in the field of the site */
async function nameTechnician(tx: Tx, siteId: number, technicianId: number): Promise<string> {
  const [found] = await tx
    .select({ name: people.name })
    .from(technicians)
    .innerJoin(accounts, and(eq(accounts.id, technicians.accountId), isNull(accounts.disabledAt)))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(eq(technicians.id, technicianId), eq(people.siteId, siteId)))
  if (!found) refuse('technician_unknown', 'Choose who takes it over from the list.', 'handTo')
  return found.name
}

async function movedBy(
  tx: Tx,
  worker: Worker,
  order: OrderRecord,
  visit: VisitRecord,
  leaving: Leaving & { handedTo: string | null },
  now: Date,
): Promise<void> {
  const [others] = await tx
    .select({ n: count() })
    .from(visits)
    .where(and(eq(visits.orderId, order.id), ne(visits.id, visit.id), liveVisit))
  if (others!.n > 0) return
  if (leaving.result === 'done' && leaving.releaseMembers)
    for (const { id } of await openMembersOf(tx, order.id)) await takeOut(tx, worker, now, (await lockOrderById(tx, id))!)
  const facts = await factsOf(tx, order, nobody, now)
  if (leaving.result === 'done') {
    await saveMove(tx, worker, now, order, 'finish', moveOrder(facts, 'finish', null), null, { finishedAt: now })
    await leaveSpace(tx, worker, order, now)
    await keepPassUntil(tx, visit.id, new Date(now.getTime() + BILLING_DAYS * 86_400_000))
  } else if (leaving.result === 'part') {
    const missing = leaving.waitsFor ? await planMissing(tx, order.id, leaving.waitsFor) : null
    const reason = [missing && `Waits for ${missing}.`, leaving.note].filter(Boolean).join(' ') || 'A part is missing.'
    await saveMove(tx, worker, now, order, 'hold', moveOrder(facts, 'hold', reason), reason, {
      heldFrom: 'ready',
      holdReason: 'part',
      ...(await heldTarget(tx, order, 'part', now)),
    })
  } else {
    const handed = leaving.handedTo ? `Handed over to ${leaving.handedTo}.` : 'It was handed over.'
    const reason =
      leaving.result === 'return' ? leaving.note || 'It needs a return visit.' : [leaving.handedTo && handed, leaving.note].filter(Boolean).join(' ') || handed
    await saveMove(tx, worker, now, order, 'recall', moveOrder(facts, 'recall', reason), reason)
  }
}

/** @returns what is missing, in words */
async function planMissing(tx: Tx, orderId: number, { partId, quantity }: { partId: number; quantity: string }): Promise<string> {
  const [part] = await tx.select({ name: parts.name, unit: parts.unit, retiredAt: parts.retiredAt }).from(parts).where(eq(parts.id, partId))
  if (!part || part.retiredAt) refuse('part_unknown', 'Choose a part from the list.', 'waitsFor')
  await planPart(tx, orderId, partId, quantity)
  return `${quantity} ${part.unit} ${part.name}`
}

/** How long a vendor may still enter the bill after the work is done. */
const BILLING_DAYS = 30
