import { desc, eq, inArray, or } from 'drizzle-orm'
import type { TimelineEntry } from '#contract/requests'
import type { Outgoing, Reader } from '#server/kit'
import { events, requestOrders } from '../tables'

const MOST = 200

/** Everything that happened to an order and the requests it answers, newest first. */
export async function timelineOfOrder(db: Reader, orderId: number): Promise<Outgoing<TimelineEntry>[]> {
  const linked = await db.select({ id: requestOrders.requestId }).from(requestOrders).where(eq(requestOrders.orderId, orderId))
  const ids = linked.map((row) => row.id)
  return read(db, or(eq(events.orderId, orderId), ids.length ? inArray(events.requestId, ids) : undefined))
}

/** Everything that happened to a request and the orders it led to, newest first. */
export async function timelineOfRequest(db: Reader, requestId: number): Promise<Outgoing<TimelineEntry>[]> {
  const linked = await db.select({ id: requestOrders.orderId }).from(requestOrders).where(eq(requestOrders.requestId, requestId))
  return read(
    db,
    or(
      eq(events.requestId, requestId),
      linked.length
        ? inArray(
            events.orderId,
            linked.map((row) => row.id),
          )
        : undefined,
    ),
  )
}

async function read(db: Reader, which: ReturnType<typeof or>): Promise<Outgoing<TimelineEntry>[]> {
  const rows = await db.select().from(events).where(which).orderBy(desc(events.at), desc(events.id)).limit(MOST)
  return rows.map(entryOf)
}

/** An event as a timeline shows it. */
export function entryOf(event: typeof events.$inferSelect): Outgoing<TimelineEntry> {
  return {
    id: event.id,
    at: event.at,
    kind: event.kind,
    who: event.actorName,
    from: event.fromState,
    to: event.toState,
    reason: event.reason,
    details: event.details,
  }
}
