import { and, desc, eq, isNull, or } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import { query, withinSites } from '#server/kit'
import { seenRecord } from '#server/registers'
import { entryOf } from '#server/orders'
import { events } from '../tables'
import { KEEPERS } from './keepers'

const MOST = 200

export default query(contract.readPortraitTimeline, async ({ db, who, input }) => {
  const { id, siteId } = await seenRecord(db, KEEPERS[input.register], who, input.id)
  // A part or a vendor serves every site; what happened to it at one is told to those of that site.
  const sites = siteId === undefined ? withinSites(who, events.siteId) : undefined
  const rows = await db
    .select()
    .from(events)
    .where(and(eq(events.register, input.register), eq(events.recordId, id), sites && or(isNull(events.siteId), sites)))
    .orderBy(desc(events.id))
    .limit(MOST)
  return { entries: rows.map(entryOf) }
})
