import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { command, notFound, recordEvent } from '#server/kit'
import { followers, requests } from '../tables'
import { siteByCode } from './siteByCode'

export default command(contract.followRequest, async ({ tx, input, service, now }) => {
  const site = await siteByCode(tx, input.site)
  const [request] = await tx.select().from(requests).where(eq(requests.id, input.id))
  if (!request || request.siteId !== site.id || request.state === 'declined') throw notFound('request')
  const email = input.email.toLowerCase()
  const link = service.links.fresh('follow')
  const [added] = await tx
    .insert(followers)
    .ignore()
    .values({ requestId: request.joinedToId ?? request.id, email, name: input.name || null, at: now, linkHash: link.hash, linkNonce: link.nonce })
  // Pressed twice, or the reporter themselves: nothing new, and nobody learns which.
  if (added.affectedRows)
    await recordEvent(tx, { accountId: null, name: input.name || 'Somebody' }, now, {
      kind: 'request.follow',
      siteId: site.id,
      requestId: request.joinedToId ?? request.id,
      details: { email },
    })
  return { following: true as const }
})
