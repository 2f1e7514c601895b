import { lt } from 'drizzle-orm'
import type { Sweep } from '#server/kit'
import { sessions, signInTries } from '../tables'

/** How long wrong passwords are remembered after the next try was possible (our own choice, no source). */
const TRIES_KEPT_MS = 24 * 3_600_000

/** Sessions that ended, and tries that slow nobody down any more. */
export const sweepSignIns: Sweep = async (tx, now) => {
  await tx.delete(sessions).where(lt(sessions.expiresAt, now))
  await tx.delete(signInTries).where(lt(signInTries.nextAt, new Date(now.getTime() - TRIES_KEPT_MS)))
}
