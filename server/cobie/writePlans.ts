import { and, eq, isNull } from 'drizzle-orm'
import type { CobieWrites } from '#core/cobie'
import { USUAL_LEAD_DAYS, firstFrom, ruleSays } from '#core/preventive'
import { dues, preventivePlans } from '../tables'
import type { Taking } from './writeRecords'

/** Preventive plans of a workbook, each with when it is due next; what was done or ordered by an earlier rule stays. */
export async function writePlans({ tx, tell }: Taking, siteId: number, today: string, jobs: CobieWrites['jobs'], assetIds: Map<string, number>): Promise<void> {
  for (const { id, name, tag, rule, startsOn } of jobs) {
    const assetId = assetIds.get(tag)!
    const planId = id ?? (await tx.insert(preventivePlans).values({ siteId, name, assetId, rule, startsOn, leadDays: USUAL_LEAD_DAYS }).$returningId())[0]!.id
    if (id) {
      await tx.update(preventivePlans).set({ rule }).where(eq(preventivePlans.id, id))
      await tx.delete(dues).where(and(eq(dues.planId, id), isNull(dues.orderId), isNull(dues.doneAt)))
    }
    const next = firstFrom(rule, startsOn, today)
    const [held] = next
      ? await tx
          .select({ id: dues.id })
          .from(dues)
          .where(and(eq(dues.planId, planId), eq(dues.dueOn, next)))
      : []
    if (next && !held) await tx.insert(dues).values({ planId, dueOn: next })
    await tell({ kind: 'cobie.plan', siteId, register: 'assets', recordId: assetId, details: { plan: name, every: ruleSays(rule), fresh: id === null } })
  }
}
