import { and, asc, eq, inArray, isNull, lte } from 'drizzle-orm'
import { noteTold } from '#server/dispatch/records'
import { CLOCK, lookout, recordEvent, takeDue } from '#server/kit'
import type { Service, Works } from '#server/kit'
import { orders, vendors, visits } from '../tables'

const LOOK_EVERY_MS = 5_000
const TURNS = [
  { which: 'remindAt', kind: 'vendor.remind' },
  { which: 'tellAt', kind: 'vendor.silent' },
] as const

const silentOn = (which: 'remindAt' | 'tellAt') => (now: Date) => and(lte(visits[which], now), eq(visits.state, 'planned'), isNull(visits.answer))

/** One look at vendors who have not answered, each told of once. */
async function lookAtSilent(service: Service): Promise<void> {
  for (const { which, kind } of TURNS)
    await takeDue(service, { table: visits, where: silentOn(which) }, async (tx, now, most) => {
      const rows = await tx
        .select({ visit: visits, siteId: orders.siteId, vendor: vendors.name })
        .from(visits)
        .innerJoin(orders, eq(orders.id, visits.orderId))
        .innerJoin(vendors, eq(vendors.id, visits.vendorId))
        .where(and(silentOn(which)(now), inArray(orders.state, ['dispatched', 'on_job'])))
        .orderBy(asc(visits.id))
        .limit(most)
        .for('update', { skipLocked: true })
      const ids = rows.map(({ visit }) => visit.id)
      await noteTold(tx, ids, which, now)
      for (const { visit, siteId, vendor } of rows)
        await recordEvent(tx, CLOCK, now, {
          kind,
          siteId,
          orderId: visit.orderId,
          visitId: visit.id,
          details: { visitId: visit.id, vendorId: visit.vendorId!, vendor },
        })
      return rows.length
    })
}

export const vendorWorks: Works = (service) => [lookout('watching vendors who do not answer', LOOK_EVERY_MS, () => lookAtSilent(service))]
