import { and, desc, inArray } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { query, withinSites } from '#server/kit'
import { incomingMails } from '../tables'

const MOST = 200

export default query(contract.listKeptMail, async ({ db, who }) => {
  const rows = await db
    .select({
      id: incomingMails.id,
      sender: incomingMails.sender,
      subject: incomingMails.subject,
      receivedAt: incomingMails.receivedAt,
      state: incomingMails.state,
      reason: incomingMails.reason,
    })
    .from(incomingMails)
    .where(and(inArray(incomingMails.state, ['ignored', 'refused']), withinSites(who, incomingMails.siteId)))
    .orderBy(desc(incomingMails.id))
    .limit(MOST)
  return { rows: rows as (Omit<(typeof rows)[number], 'state'> & { state: 'ignored' | 'refused' })[] }
})
