import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { Refusal, refuse } from '#core/kit'
import { command, hideFromOrder } from '#server/kit'
import type { Tx } from '#server/kit'
import { takeBackOrder } from '#server/orders'
import { events, requestOrders, requests } from '../tables'
import { lockRequest } from './facts'
import type { RequestRecord } from './facts'
import { lastOutcome } from './outcome'
import type { LastOutcome } from './outcome'

/** Takes the last outcome back, as if it had not been given; the record keeps both. */
export default command(contract.undoOutcome, async ({ tx, who, input, now, tell }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  const outcome = await lastOutcome(tx, who, request, now)
  if (!outcome) refuse('nothing_to_undo', 'Nothing was decided that could be taken back.')
  if (outcome.reasons.length) throw new Refusal(outcome.reasons)
  const { order, move, joined } = outcome
  if (order) {
    await tx.delete(requestOrders).where(and(eq(requestOrders.requestId, request.id), eq(requestOrders.orderId, order.id)))
    await hideFromOrder(tx, request.id, order.id)
    if (!joined) await takeBackOrder(tx, who, now, order, { request: request.number })
  }
  const state = await stateAfter(tx, request, outcome)
  const version = request.version + 1
  await tx
    .update(requests)
    .set({
      state,
      version,
      ...(move === 'another' ? {} : { decidedAt: null, declineReason: null, joinedToId: null }),
      question: state === 'asked' ? await questionOf(tx, request.id) : null,
    })
    .where(eq(requests.id, request.id))
  await tell({
    kind: 'request.undo',
    siteId: request.siteId,
    requestId: request.id,
    from: request.state,
    to: state,
    details: { move, ...(order ? { order: order.number } : {}) },
  })
  return { id: request.id, version, state }
})

/** Where it stood before; one of several orders taken back leaves the request accepted by the others. */
async function stateAfter(tx: Tx, request: RequestRecord, { move, fromState }: LastOutcome): Promise<RequestRecord['state']> {
  if (move === 'another') return request.state
  if (move !== 'accept') return fromState
  const left = await tx.select({ id: requestOrders.orderId }).from(requestOrders).where(eq(requestOrders.requestId, request.id))
  return left.length ? request.state : fromState
}

/** The question the reporter was asked last. */
async function questionOf(tx: Tx, requestId: number): Promise<string | null> {
  const [asked] = await tx
    .select({ reason: events.reason })
    .from(events)
    .where(and(eq(events.requestId, requestId), eq(events.kind, 'request.ask')))
    .orderBy(desc(events.id))
    .limit(1)
  return asked?.reason ?? null
}
