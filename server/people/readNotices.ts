import { and, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/people'
import { notices } from '../tables'
import { command } from '#server/kit'

export default command(contract.readNotices, async ({ tx, who, now }) => {
  await tx
    .update(notices)
    .set({ readAt: now })
    .where(and(eq(notices.accountId, who.accountId!), isNull(notices.readAt)))
  return { unread: 0 }
})
