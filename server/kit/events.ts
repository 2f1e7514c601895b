import type { EventFacts, EventKind } from '#core/events'
import type { RegisterName } from '#core/registers'
import { events } from '../tables'
import type { EventDetails } from '../tables'
import type { Tx } from './database'
import type { Asker } from './who'

/** What happened, as a command tells it, with the facts of its kind. Who and when are filled in. */
export interface Happening<Kind extends EventKind = EventKind> {
  kind: Kind
  siteId?: number | null
  requestId?: number | null
  orderId?: number | null
  visitId?: number | null
  /** A record of a register. */
  register?: RegisterName
  recordId?: number
  from?: string | null
  to?: string | null
  reason?: string | null
  details?: EventFacts<Kind>
}

/** Whose act it is; and when we heard of it, where that was so much later than it happened that it is worth saying. */
export type Actor = Pick<Asker, 'accountId' | 'name'> & { heardAt?: Date }

/** Tells of something that happened, as the person who asks, in the transaction of the change. */
export type Tell = <Kind extends EventKind>(happening: Happening<Kind>) => Promise<void>

/** Writes an event in the transaction of the change it tells of. */
export async function recordEvent<Kind extends EventKind>(tx: Tx, who: Actor, now: Date, happening: Happening<Kind>): Promise<void> {
  const { kind, from, to, details, ...rest } = happening
  await tx.insert(events).values({
    ...rest,
    kind: kind,
    details: (who.heardAt ? { ...details, heardAt: who.heardAt.toISOString() } : (details ?? null)) as EventDetails | null,
    at: now,
    actorId: who.accountId,
    actorName: who.name,
    fromState: from ?? null,
    toState: to ?? null,
  })
}

const AT_ONCE = 500

/** Writes many events of one kind of act at once, as if each had been told of by itself. */
export async function recordEvents<Kind extends EventKind>(
  tx: Tx,
  who: Pick<Asker, 'accountId' | 'name'>,
  now: Date,
  happenings: Happening<Kind>[],
): Promise<void> {
  for (let from = 0; from < happenings.length; from += AT_ONCE)
    await tx.insert(events).values(
      happenings.slice(from, from + AT_ONCE).map(({ kind, from: fromState, to: toState, details, ...rest }) => ({
        ...rest,
        kind,
        details: (details ?? null) as EventDetails | null,
        at: now,
        actorId: who.accountId,
        actorName: who.name,
        fromState: fromState ?? null,
        toState: toState ?? null,
      })),
    )
}
