import { eq } from 'drizzle-orm'
import type { Done } from '#contract/kit'
import { REQUEST_MOVES } from '#core/requests'
import type { RequestMove, RequestState } from '#core/requests'
import { recordEvent } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import type { EventFacts } from '#core/events'
import { requests } from '../tables'
import type { RequestRecord } from './facts'

/** Writes the new state and the event that tells of it. Deciding takes a request up, if nobody had. */
export async function saveRequestMove(
  tx: Tx,
  who: Pick<Asker, 'accountId' | 'name'>,
  now: Date,
  request: RequestRecord,
  move: RequestMove,
  to: RequestState,
  more: Partial<typeof requests.$inferInsert> = {},
  told: { reason?: string | null; details?: EventFacts<`request.${RequestMove}`>; orderId?: number } = {},
): Promise<Done> {
  const version = request.version + 1
  const taken = request.takenUpAt ? {} : { takenUpAt: now, takenUpBy: who.accountId }
  const decided = ['accepted', 'joined', 'declined'].includes(to) ? { decidedAt: now } : {}
  await tx
    .update(requests)
    .set({ ...taken, ...decided, ...more, state: to, version })
    .where(eq(requests.id, request.id))
  await recordEvent(tx, who, now, {
    kind: `request.${move}`,
    siteId: request.siteId,
    requestId: request.id,
    orderId: told.orderId,
    from: request.state,
    to,
    reason: told.reason?.trim() || null,
    details: { label: REQUEST_MOVES[move].label, ...told.details },
  })
  return { id: request.id, version, state: to }
}
