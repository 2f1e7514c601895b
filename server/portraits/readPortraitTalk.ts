import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import { query, withinSites } from '#server/kit'
import { seenRecord } from '#server/registers'
import { comments, requests } from '../tables'
import { KEEPERS } from './keepers'

const MOST = 20
const SNIPPET = 300

export default query(contract.readPortraitTalk, async ({ db, who, input }) => {
  const keeper = KEEPERS[input.register]
  const row = await seenRecord(db, keeper, who, input.id)
  const about = keeper.requests?.(row as never)
  if (!about) return { rows: [] }
  const rows = await db
    .select({
      id: comments.id,
      requestId: requests.id,
      number: requests.number,
      summary: requests.summary,
      at: comments.at,
      from: comments.authorName,
      text: comments.text,
    })
    .from(comments)
    .innerJoin(requests, eq(requests.id, comments.requestId))
    .where(and(about, withinSites(who, requests.siteId)))
    .orderBy(desc(comments.id))
    .limit(MOST)
  return { rows: rows.map(({ text, ...one }) => ({ ...one, text: text.length > SNIPPET ? `${text.slice(0, SNIPPET)} …` : text })) }
})
