import { eq } from 'drizzle-orm'
import { checkInBy, isAlone } from '#core/field'
import type { StintKind } from '#core/ledger'
import { statement } from '#server/kit'
import type { Actor, Reader, Tx } from '#server/kit'
import { loneWatches, loneWork } from '../tables'

const everyOn = statement(['orderId'], (db, { orderId }) => db.select({ every: loneWork.everyMinutes }).from(loneWork).where(eq(loneWork.orderId, orderId)))
export const everyMinutesOf = async (db: Reader, orderId: number): Promise<number | null> => (await everyOn(db, { orderId }))[0]?.every ?? null

/** The clock of a visit runs as another kind of time: from now on they are watched, or no longer. What was heard of late counts from when it was heard. */
export async function watchAlone(tx: Tx, worker: Actor, visit: { id: number; orderId: number }, kind: StintKind, at: Date): Promise<void> {
  const everyMinutes = await everyMinutesOf(tx, visit.orderId)
  if (everyMinutes === null) return
  if (!isAlone(kind)) return endWatch(tx, visit.id)
  await renew(tx, visit.id, everyMinutes, worker.heardAt ?? at)
}

/** The clock stands still: nobody is there any more. */
export async function endWatch(tx: Tx, visitId: number): Promise<void> {
  await tx.delete(loneWatches).where(eq(loneWatches.visitId, visitId))
}

export async function renew(tx: Tx, visitId: number, everyMinutes: number, at: Date): Promise<void> {
  const watch = { checkedAt: at, dueAt: checkInBy(at, everyMinutes), toldAt: null }
  await tx
    .insert(loneWatches)
    .values({ visitId, ...watch })
    .onDuplicateKeyUpdate({ set: watch })
}

/** As whoever is there sees it. */
export async function jobAlone(db: Reader, orderId: number, visitId: number) {
  const everyMinutes = await everyMinutesOf(db, orderId)
  if (everyMinutes === null) return null
  const [watch] = await db.select({ dueAt: loneWatches.dueAt }).from(loneWatches).where(eq(loneWatches.visitId, visitId))
  return { everyMinutes, dueAt: watch?.dueAt ?? null }
}
