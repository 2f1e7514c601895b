import { lt } from 'drizzle-orm'
import type { Sweep } from '#server/kit'
import { reporterLinks } from '../tables'

/** Links by which reporters saw what they sent, once they have run out. */
export const sweepReporterLinks: Sweep = async (tx, now) => {
  await tx.delete(reporterLinks).where(lt(reporterLinks.expiresAt, now))
}
