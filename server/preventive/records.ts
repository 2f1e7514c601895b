import { and, eq, isNull } from 'drizzle-orm'
import { firstFrom, USUAL_LEAD_DAYS } from '#core/preventive'
import type { Tx } from '#server/kit'
import { dues, preventivePlans } from '../tables'

interface Plan {
  id: number | null
  siteId: number
  name: string
  assetId: number
  /** RFC 5545 RRULE. */
  rule: string
  startsOn: string
}

/**
 * A preventive plan for an asset, a new one or one that is there with another rule, and when it is due next. What was
 * done or ordered by an earlier rule stays. @param today the day it is at the site
 */
export async function keepPlan(tx: Tx, { id, rule, startsOn, ...plan }: Plan, today: string): Promise<void> {
  const planId =
    id ??
    (
      await tx
        .insert(preventivePlans)
        .values({ ...plan, rule, startsOn, leadDays: USUAL_LEAD_DAYS })
        .$returningId()
    )[0]!.id
  if (id) {
    await tx.update(preventivePlans).set({ rule }).where(eq(preventivePlans.id, id))
    await tx.delete(dues).where(and(eq(dues.planId, id), isNull(dues.orderId), isNull(dues.doneAt)))
  }
  const next = firstFrom(rule, startsOn, today)
  if (!next) return
  const [held] = await tx
    .select({ id: dues.id })
    .from(dues)
    .where(and(eq(dues.planId, planId), eq(dues.dueOn, next)))
  if (!held) await tx.insert(dues).values({ planId, dueOn: next })
}
