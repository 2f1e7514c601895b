import { and, eq, ne } from 'drizzle-orm'
import * as contract from '#contract/vendors'
import { proposalReasons } from '#core/dispatch'
import { refuse, Refusal } from '#core/kit'
import { moveOrder } from '#core/orders'
import { acceptedAt } from '#server/dispatch'
import { answerVisit, dropVisit, liveVisit } from '#server/dispatch/records'
import { command, nobody, recordEvent } from '#server/kit'
import type { Tx } from '#server/kit'
import { factsOf, saveMove } from '#server/orders'
import { visits } from '../tables'
import { lockPass } from './openPass'
import { readPassSheet } from './passSheet'

/** The pass, its order and its visit held, while there is still something to answer. */
async function lockAsked(tx: Tx, token: string, now: Date) {
  const held = await lockPass(tx, token, now)
  const [visit] = (await tx.select().from(visits).where(eq(visits.id, held.visit.id)).for('update')) as [typeof visits.$inferSelect]
  if (visit.state !== 'planned') refuse('begun', 'You have begun already: leave a note, or call the desk.')
  return { ...held, visit }
}
type Held = Awaited<ReturnType<typeof lockAsked>>

const tell = (
  tx: Tx,
  { order, visit, worker }: Held,
  now: Date,
  kind: 'vendor.accept' | 'vendor.propose' | 'vendor.decline',
  reason: string | null,
  more = {},
) =>
  recordEvent(tx, worker, now, {
    kind,
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    reason,
    details: { visitId: visit.id, vendorId: visit.vendorId!, ...more },
  })

/** What was read of the visit has to be what stands: nobody accepts a time they have not seen. */
function mustStand({ visit }: Held, seen: string): void {
  if (visit.plannedStart.getTime() !== new Date(seen).getTime()) refuse('moved', 'The desk has planned another time meanwhile: look at it, then answer.')
}

export const acceptVisit = command(contract.acceptVisit, async ({ tx, input, now, service }) => {
  const held = await lockAsked(tx, input.token, now)
  mustStand(held, input.plannedStart)
  if (held.visit.answer !== 'accepted') {
    await answerVisit(tx, held.visit, acceptedAt(now))
    await tell(tx, held, now, 'vendor.accept', null)
  }
  return readPassSheet(tx, service, input.token, now)
})

export const proposeTime = command(contract.proposeTime, async ({ tx, input, now, service }) => {
  const held = await lockAsked(tx, input.token, now)
  mustStand(held, input.plannedStart)
  const [start, end] = [new Date(input.start), new Date(input.end)]
  const reasons = proposalReasons(start, end, { start: held.visit.plannedStart, end: held.visit.plannedEnd }, now)
  if (reasons.length) throw new Refusal(reasons)
  const note = input.note?.trim() || null
  await answerVisit(tx, held.visit, {
    answer: 'proposed',
    answeredAt: now,
    answerNote: note,
    proposedStart: start,
    proposedEnd: end,
    remindAt: null,
    tellAt: null,
  })
  await tell(tx, held, now, 'vendor.propose', note, { start: start.toISOString(), end: end.toISOString() })
  return readPassSheet(tx, service, input.token, now)
})

/** They do not come: the visit is off and its pass with it; where nobody else is to come, the order waits at the desk again. */
export const declineVisit = command(contract.declineVisit, async ({ tx, input, now }) => {
  const held = await lockAsked(tx, input.token, now)
  const { order, visit, worker } = held
  const note = input.note.trim()
  await dropVisit(tx, visit, now, {
    answer: 'declined',
    answeredAt: now,
    answerNote: note,
    proposedStart: null,
    proposedEnd: null,
    remindAt: null,
    tellAt: null,
  })
  await tell(tx, held, now, 'vendor.decline', note)
  const left = await tx
    .select({ id: visits.id })
    .from(visits)
    .where(and(eq(visits.orderId, order.id), liveVisit, ne(visits.id, visit.id)))
    .limit(1)
  if (!left.length && (order.state === 'dispatched' || order.state === 'on_job')) {
    // Which reasons the desk has to give is no question to a vendor.
    const facts = await factsOf(tx, order, nobody, now)
    const to = moveOrder({ ...facts, rules: { ...facts.rules, reasons: [] } }, 'recall', note)
    await saveMove(tx, worker, now, order, 'recall', to, note)
  }
  return { declined: true }
})
