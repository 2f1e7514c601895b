import * as contract from '#contract/people'
import { command, markNoticesRead } from '#server/kit'

export default command(contract.readNotices, async ({ tx, who, now }) => {
  await markNoticesRead(tx, who.accountId!, now)
  return { unread: 0 }
})
