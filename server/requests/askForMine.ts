import { and, eq, isNotNull, or } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { command } from '#server/kit'
import { followers, reporterLinks, requests } from '../tables'
import { siteByCode } from './siteByCode'
import { mailStranger } from './strangerMail'

const VALID_MS = 24 * 3_600_000

export default command(contract.askForMine, async ({ tx, input, service, now }) => {
  const site = await siteByCode(tx, input.site)
  const email = input.email.toLowerCase()
  const [known] = await tx
    .select({ id: requests.id })
    .from(requests)
    .leftJoin(followers, and(eq(followers.requestId, requests.id), isNotNull(followers.confirmedAt)))
    .where(or(eq(requests.reporterEmail, email), eq(followers.email, email)))
    .limit(1)
  const link = service.links.fresh('mine')
  const text = known
    ? [
        'Hello,',
        '',
        'here is the link to everything you have sent us. It works for one day; ask for another whenever you like.',
        '',
        `${service.publicUrl()}/mine/${link.token}`,
        '',
        'If you did not ask for it, leave this mail alone: nobody else has the link.',
        '',
        `${site.name}, ${site.deskPhone}`,
      ]
    : [
        'Hello,',
        '',
        'somebody asked for what was sent to us from this address. Nothing was, so there is nothing to show.',
        '',
        'Report something here:',
        `${service.publicUrl()}/c/${site.code}`,
        '',
        `${site.name}, ${site.deskPhone}`,
      ]
  if (known)
    await tx
      .insert(reporterLinks)
      .values({ email, siteId: site.id, tokenHash: link.hash, nonce: link.nonce, createdAt: now, expiresAt: new Date(now.getTime() + VALID_MS) })
  await mailStranger(tx, now, { occasion: 'mine', site, to: email, subject: `What you have sent to ${site.name}`, text: text.join('\n') })
  return { sent: true as const }
})
