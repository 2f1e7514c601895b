import { asc, eq, lte } from 'drizzle-orm'
import { pushes } from '../tables'
import type { Db, Reader, Tx } from './database'
import { anyLike } from './anyLike'

const [FIRST_MS, MOST_TRIES] = [30_000, 10]

export const pushesWait = (db: Reader, now: Date) => anyLike(db, pushes, lte(pushes.nextAt, now))

/** News that browsers are to be told of now, held: another server takes others. */
export const heldPushes = (tx: Tx, now: Date, most: number) =>
  tx.select().from(pushes).where(lte(pushes.nextAt, now)).orderBy(asc(pushes.id)).limit(most).for('update', { skipLocked: true })

/** It is tried again later, and later still; given up after the tenth time: whom it is for was written by mail, too. */
export async function putOff(tx: Tx, { id, tries }: { id: number; tries: number }, now: Date): Promise<void> {
  if (tries >= MOST_TRIES) await tx.delete(pushes).where(eq(pushes.id, id))
  else
    await tx
      .update(pushes)
      .set({ tries: tries + 1, nextAt: new Date(now.getTime() + FIRST_MS * 2 ** tries) })
      .where(eq(pushes.id, id))
}

/** The push service has it. */
export const dropTold = (db: Db, id: number) => db.delete(pushes).where(eq(pushes.id, id))
