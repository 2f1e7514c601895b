import { and, count, desc, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/people'
import { notices } from '../tables'
import { query } from '#server/kit'

export default query(contract.listNotices, async ({ db, who }) => {
  const mine = eq(notices.accountId, who.accountId!)
  const rows = await db.select().from(notices).where(mine).orderBy(desc(notices.id)).limit(50)
  const [unread] = await db
    .select({ n: count() })
    .from(notices)
    .where(and(mine, isNull(notices.readAt)))
  return { rows: rows.map(({ accountId: _, eventId: __, ...row }) => row), unread: unread!.n }
})
