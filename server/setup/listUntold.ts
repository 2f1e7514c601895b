import { and, asc, eq, isNotNull } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { query, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { events, orders, untoldEvents } from '../tables'

const MOST = 200

export default query(contract.listUntold, async ({ db, who }) => ({ rows: await untoldRows(db, who) }))

/** What was set aside at the sites of this administrator, the oldest first. */
export async function untoldRows(db: Reader, who: Asker) {
  return db
    .select({
      id: events.id,
      at: events.at,
      kind: events.kind,
      actorName: events.actorName,
      number: orders.number,
      error: untoldEvents.error,
      attempts: untoldEvents.attempts,
    })
    .from(untoldEvents)
    .innerJoin(events, eq(events.id, untoldEvents.eventId))
    .leftJoin(orders, eq(orders.id, events.orderId))
    .where(and(isNotNull(untoldEvents.setAsideAt), withinSites(who, events.siteId)))
    .orderBy(asc(untoldEvents.eventId))
    .limit(MOST)
}
