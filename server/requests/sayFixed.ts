import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command, recordEvent } from '#server/kit'
import { requests } from '../tables'
import { ordersAnswering, requestByLink, trackedOf } from './tracked'

/** Whoever reported it has seen that it is done. Pressed twice, nothing new. */
export default command(contract.sayFixed, async ({ tx, input, now }) => {
  const found = await requestByLink(tx, input.token, now)
  const { request, site } = found
  await tx.select({ id: requests.id }).from(requests).where(eq(requests.id, request.id)).for('update')
  const tracked = await trackedOf(tx, found, now)
  if (tracked.progress.step !== 'done' || tracked.following) refuse('not_done', 'It is not done yet; write to the desk instead.')
  if (!tracked.maySayFixed) return tracked
  const orders = await ordersAnswering(tx, [request.joinedToId ?? request.id])
  const name = request.reporterName ?? 'Reporter'
  await recordEvent(tx, { accountId: null, name }, now, { kind: 'request.fixed', siteId: site.id, requestId: request.id, orderId: orders[0]?.id })
  return trackedOf(tx, await requestByLink(tx, input.token, now), now)
})
