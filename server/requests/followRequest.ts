import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { command, notFound } from '#server/kit'
import { followers, requests } from '../tables'
import { siteByCode } from './siteByCode'
import { mailStranger } from './strangerMail'

/** Me too. The address is a stranger's word: nothing but a link to confirm it goes there, and nobody learns what was known. */
export default command(contract.followRequest, async ({ tx, input, service, now }) => {
  const site = await siteByCode(tx, input.site)
  const [request] = await tx.select().from(requests).where(eq(requests.id, input.id))
  if (!request || request.siteId !== site.id || request.state === 'declined') throw notFound('request')
  const requestId = request.joinedToId ?? request.id
  const email = input.email.toLowerCase()
  const link = service.links.fresh('follow')
  await tx
    .insert(followers)
    .ignore()
    .values({ requestId, email, name: input.name || null, at: now, linkHash: link.hash, linkNonce: link.nonce })
  const [follower] = await tx
    .select()
    .from(followers)
    .where(and(eq(followers.requestId, requestId), eq(followers.email, email)))
  if (!follower!.confirmedAt && email !== request.reporterEmail)
    await mailStranger(tx, now, {
      occasion: 'confirm',
      site,
      to: email,
      requestId,
      followerId: follower!.id,
      subject: `Confirm your address for ${site.name}`,
      text: [
        'Hello,',
        '',
        'somebody asked us to tell this address how something that was reported goes on. If it was you, confirm it here:',
        '',
        `${service.publicUrl()}/t/${service.links.again('follow', follower!.linkNonce)}`,
        '',
        'If it was not you, leave this mail alone, and nothing more comes.',
        '',
        `${site.name}, ${site.deskPhone}`,
      ].join('\n'),
    })
  return { following: true as const }
})
