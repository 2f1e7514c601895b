import { and, asc, eq, inArray, isNull, lte } from 'drizzle-orm'
import { noteTold } from '#server/dispatch/records'
import { CLOCK, lookout, recordEvent } from '#server/kit'
import type { Service, Works } from '#server/kit'
import { orders, vendors, visits } from '../tables'

const LOOK_EVERY_MS = 5_000
const BATCH = 100

const TURNS = [
  { which: 'remindAt', kind: 'vendor.remind' },
  { which: 'tellAt', kind: 'vendor.silent' },
] as const

/** One look at vendors who have not answered, each told of once. Several servers share the rows, none waits for another. */
async function lookAtSilent(service: Service): Promise<void> {
  const now = service.clock()
  for (const { which, kind } of TURNS)
    for (;;) {
      const found = await service.writer.transaction(
        async (tx) => {
          const rows = await tx
            .select({ visit: visits, siteId: orders.siteId, vendor: vendors.name })
            .from(visits)
            .innerJoin(orders, eq(orders.id, visits.orderId))
            .innerJoin(vendors, eq(vendors.id, visits.vendorId))
            .where(and(lte(visits[which], now), eq(visits.state, 'planned'), isNull(visits.answer), inArray(orders.state, ['dispatched', 'on_job'])))
            .orderBy(asc(visits.id))
            .limit(BATCH)
            .for('update', { skipLocked: true })
          await noteTold(
            tx,
            rows.map(({ visit }) => visit.id),
            which,
            now,
          )
          for (const { visit, siteId, vendor } of rows)
            await recordEvent(tx, CLOCK, now, {
              kind,
              siteId,
              orderId: visit.orderId,
              visitId: visit.id,
              details: { visitId: visit.id, vendorId: visit.vendorId!, vendor },
            })
          return rows.length
        },
        { isolationLevel: 'read committed' },
      )
      if (found) service.publisher.nudge()
      if (found < BATCH) break
    }
}

export const vendorWorks: Works = (service) => [lookout('watching vendors who do not answer', LOOK_EVERY_MS, () => lookAtSilent(service))]
