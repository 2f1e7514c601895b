import { and, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { command, recordEvent } from '#server/kit'
import { followers } from '../tables'
import { requestByLink, trackedOf } from './tracked'

/** Whoever has the link has the mail: from now on they hear how it goes. Pressed twice, nothing new. */
export default command(contract.confirmFollow, async ({ tx, input, now }) => {
  const found = await requestByLink(tx, input.token, now)
  const { request, follower } = found
  if (!follower) return trackedOf(tx, found, now)
  const [confirmed] = await tx
    .update(followers)
    .set({ confirmedAt: now })
    .where(and(eq(followers.id, follower.id), isNull(followers.confirmedAt)))
  if (confirmed.affectedRows)
    await recordEvent(tx, { accountId: null, name: follower.name || 'Somebody' }, now, {
      kind: 'request.follow',
      siteId: request.siteId,
      requestId: request.id,
      details: { email: follower.email },
    })
  return trackedOf(tx, await requestByLink(tx, input.token, now), now)
})
