import { and, asc, desc, eq, gt, inArray, or } from 'drizzle-orm'
import { undoReasons } from '#core/requests'
import type { OutcomeFacts } from '#core/requests'
import type { Reason } from '#core/kit'
import type { Asker, Reader } from '#server/kit'
import { factsOf } from '#server/orders'
import { isActed } from '#core/events'
import type { EventKind } from '#core/events'
import { events, orders } from '../tables'
import type { RequestRecord } from './facts'

const OUTCOMES: Partial<Record<EventKind, OutcomeFacts['move']>> = {
  'request.accept': 'accept',
  'request.ask': 'ask',
  'request.decline': 'decline',
  'request.join': 'join',
  'request.another': 'another',
}
/** What ends an outcome: taken back, or followed by the reporter's answer. */
const ENDS: EventKind[] = ['request.undo', 'request.answer']
const LOOKED_FOR = [...(Object.keys(OUTCOMES) as EventKind[]), ...ENDS]

export interface LastOutcome {
  move: OutcomeFacts['move']
  fromState: RequestRecord['state']
  /** The order it led to or joined. */
  order: typeof orders.$inferSelect | null
  joined: boolean
  reasons: Reason[]
}

/** The outcome the request stands at, and why the person asking cannot take it back; null when there is none. */
export async function lastOutcome(db: Reader, who: Asker, request: RequestRecord, now: Date): Promise<LastOutcome | null> {
  const [event] = await db
    .select()
    .from(events)
    .where(and(eq(events.requestId, request.id), inArray(events.kind, LOOKED_FOR)))
    .orderBy(desc(events.id))
    .limit(1)
  const move = event && OUTCOMES[event.kind]
  if (!move || !who.accountId) return null
  const [order] = event.orderId ? await db.select().from(orders).where(eq(orders.id, event.orderId)) : []
  const since = await db
    .select({ accountId: events.actorId, who: events.actorName, kind: events.kind })
    .from(events)
    .where(and(gt(events.id, event.id), or(eq(events.requestId, request.id), order ? eq(events.orderId, order.id) : undefined)))
    .orderBy(asc(events.id))
  const joined = (event.details as { joined?: boolean } | null)?.joined === true
  const made = order && !joined ? { number: order.number, state: order.state, recorded: (await factsOf(db, order, who, now)).recorded } : null
  return {
    move,
    fromState: (event.fromState ?? 'new') as RequestRecord['state'],
    order: order ?? null,
    joined,
    reasons: undoReasons(
      { move, accountId: event.actorId, since: since.map(({ kind, ...one }) => ({ ...one, acted: isActed(kind) })), order: made },
      who.accountId,
    ),
  }
}
