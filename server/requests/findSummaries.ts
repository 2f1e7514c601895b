import { and, count, desc, like, sql } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { query, withinSites } from '#server/kit'
import { requests } from '../tables'

const LATEST = 5_000

export default query(contract.findSummaries, async ({ db, who, input }) => {
  if (input.q.length < 2) return { rows: [] }
  const latest = db
    .select({ summary: requests.summary })
    .from(requests)
    .where(and(like(requests.summary, `${input.q.replace(/[%_\\]/g, '')}%`), withinSites(who, requests.siteId)))
    .orderBy(desc(requests.id))
    .limit(LATEST)
    .as('latest')
  const rows = await db
    .select({ summary: latest.summary, n: count() })
    .from(latest)
    .groupBy(latest.summary)
    .orderBy(desc(count()), sql`1`)
    .limit(6)
  return { rows: rows.map((row) => row.summary) }
})
