import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command, maySee, notFound } from '#server/kit'
import { incomingMails, requests, sites } from '../tables'
import { readMime, takeMail } from './mailReader'

export default command(contract.takeKeptMail, async ({ tx, who, input, service, now }) => {
  const [mail] = await tx.select().from(incomingMails).where(eq(incomingMails.id, input.id)).for('update')
  if (!mail || !maySee(who, mail.siteId)) throw notFound('mail')
  if (mail.state !== 'ignored' && mail.state !== 'refused') refuse('taken_already', 'Somebody made a request of it meanwhile.')
  const [site] = await tx.select().from(sites).where(eq(sites.id, mail.siteId))
  const read = await readMime(mail.raw).catch(() => refuse('unreadable', 'It cannot be read, not even in part. Call the sender.'))
  const outcome = await takeMail(tx, service, site!, mail, read, now)
  await tx.update(incomingMails).set({ state: outcome.state, reason: null, requestId: outcome.requestId }).where(eq(incomingMails.id, mail.id))
  const [made] = await tx.select({ number: requests.number }).from(requests).where(eq(requests.id, outcome.requestId!))
  return { requestId: outcome.requestId!, number: made!.number }
})
