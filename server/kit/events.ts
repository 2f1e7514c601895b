import { events } from '../tables'
import type { EventDetails } from '../tables'
import type { Tx } from './database'
import type { Asker } from './who'

/** What happened, as a command tells it. Who and when are filled in. */
export interface Happening {
  kind: string
  siteId?: number
  requestId?: number | null
  orderId?: number | null
  visitId?: number | null
  from?: string | null
  to?: string | null
  reason?: string | null
  details?: EventDetails
}

/** Writes an event in the transaction of the change it tells of. */
export async function recordEvent(tx: Tx, who: Pick<Asker, 'accountId' | 'name'>, now: Date, happening: Happening): Promise<void> {
  const { from, to, ...rest } = happening
  await tx.insert(events).values({ ...rest, at: now, actorId: who.accountId, actorName: who.name, fromState: from ?? null, toState: to ?? null })
}
