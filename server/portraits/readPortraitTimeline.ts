import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import { query } from '#server/kit'
import { seenRecord } from '#server/registers'
import { entryOf } from '#server/orders'
import { events } from '../tables'
import { KEEPERS } from './keepers'

const MOST = 200

export default query(contract.readPortraitTimeline, async ({ db, who, input }) => {
  const { id } = await seenRecord(db, KEEPERS[input.register], who, input.id)
  const rows = await db
    .select()
    .from(events)
    .where(and(eq(events.register, input.register), eq(events.recordId, id)))
    .orderBy(desc(events.id))
    .limit(MOST)
  return { entries: rows.map(entryOf) }
})
