import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { incomingMails, requests, sites } from '../tables'
import { lockKeptMail, readWhole } from './keptMail'
import { takeMail } from './takeMail'

export default command(contract.takeKeptMail, async ({ tx, who, input, service, now }) => {
  const mail = await lockKeptMail(tx, who, input.id)
  if (mail.state !== 'ignored' && mail.state !== 'refused')
    refuse('taken_already', mail.state === 'dismissed' ? 'Somebody dismissed it meanwhile.' : 'Somebody made a request of it meanwhile.')
  const [site] = await tx.select().from(sites).where(eq(sites.id, mail.siteId))
  const outcome = await takeMail(tx, service, site!, mail, await readWhole(tx, mail), now)
  await tx
    .update(incomingMails)
    .set({ state: outcome.state, reason: null, requestId: outcome.requestId, leftOut: outcome.leftOut ?? null })
    .where(eq(incomingMails.id, mail.id))
  const [made] = await tx.select({ number: requests.number }).from(requests).where(eq(requests.id, outcome.requestId!))
  return { requestId: outcome.requestId!, number: made!.number }
})
