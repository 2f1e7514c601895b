import { and, desc, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { query, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { incomingMails, storedFiles } from '../tables'

const MOST = 200

export default query(contract.listKeptMail, async ({ db, who }) => ({ rows: await keptMailRows(db, who) }))

/** Mail nobody has looked at yet, the newest first. */
export async function keptMailRows(db: Reader, who: Asker) {
  const rows = await db
    .select({
      id: incomingMails.id,
      sender: incomingMails.sender,
      subject: incomingMails.subject,
      receivedAt: incomingMails.receivedAt,
      state: incomingMails.state,
      reason: incomingMails.reason,
      bytes: storedFiles.bytes,
    })
    .from(incomingMails)
    .leftJoin(storedFiles, eq(storedFiles.id, incomingMails.fileId))
    .where(and(inArray(incomingMails.state, ['ignored', 'refused']), withinSites(who, incomingMails.siteId)))
    .orderBy(desc(incomingMails.id))
    .limit(MOST)
  return rows as (Omit<(typeof rows)[number], 'state'> & { state: 'ignored' | 'refused' })[]
}
