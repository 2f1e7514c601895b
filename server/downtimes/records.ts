import { and, asc, eq, isNull, or } from 'drizzle-orm'
import type { Reader } from '#server/kit'
import { downtimes } from '../tables'

/** When the asset of a job could not be used: what lasts, and what was written down on it. */
export async function jobDowntimes(db: Reader, assetId: number | null, orderId: number) {
  if (assetId === null) return []
  const rows = await db
    .select()
    .from(downtimes)
    .where(and(eq(downtimes.assetId, assetId), or(isNull(downtimes.untilAt), eq(downtimes.orderId, orderId))))
    .orderBy(asc(downtimes.fromAt))
  return rows.map(({ mark, fromAt, untilAt, reason, saidBy }) => ({ mark, fromAt, untilAt, reason, who: saidBy }))
}
