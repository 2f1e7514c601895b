import { eq, inArray } from 'drizzle-orm'
import type { WorkCalendar } from '#core/kit'
import type { CounterFields } from '#core/requests'
import type { Tx } from '#server/kit'
import { sites } from '../tables'

/** What the Counters of these sites ask from now on. */
export async function setCounterFields(tx: Tx, siteIds: number[], counterFields: CounterFields): Promise<void> {
  await tx.update(sites).set({ counterFields }).where(inArray(sites.id, siteIds))
}

/** When a site works, from now on; promises already made stay. Its version counts on. */
export async function setCalendar(tx: Tx, site: Pick<typeof sites.$inferSelect, 'id' | 'calendarVersion'>, calendar: WorkCalendar): Promise<void> {
  await tx
    .update(sites)
    .set({ calendar, calendarVersion: site.calendarVersion + 1 })
    .where(eq(sites.id, site.id))
}
