import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { incomingMails } from '../tables'
import { lockKeptMail } from './keptMail'
import { keptMailRows } from './listKeptMail'

/** Somebody looked at it, and nothing is to be made of it. It stays where it is, out of sight. */
export default command(contract.dismissMail, async ({ tx, who, input, now, tell }) => {
  const mail = await lockKeptMail(tx, who, input.id)
  if (mail.state !== 'ignored' && mail.state !== 'refused') refuse('taken_already', 'Somebody has dealt with it meanwhile.')
  await tx
    .update(incomingMails)
    .set({ state: 'dismissed', reason: input.reason, dismissedBy: who.accountId, dismissedAt: now })
    .where(eq(incomingMails.id, mail.id))
  await tell({ kind: 'mail.dismiss', siteId: mail.siteId, reason: input.reason, details: { sender: mail.sender, subject: mail.subject } })
  return { rows: await keptMailRows(tx, who) }
})
