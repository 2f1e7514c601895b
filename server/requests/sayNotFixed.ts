import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { LONGEST_SUMMARY } from '#core/requests'
import { command, recordEvent } from '#server/kit'
import { requests } from '../tables'
import { createRequest } from './createRequest'
import { ordersAnswering, requestByLink, toldAgain, trackedOf } from './tracked'

/** Done, says the desk; not fixed, says the reporter: a new request at the same place, with the one it repeats beside it. */
export default command(contract.sayNotFixed, async ({ tx, input, service, now }) => {
  const found = await requestByLink(tx, input.token, now)
  const { request, site } = found
  // Sent twice, also at once, it is one: the second finds what the first made.
  await tx.select({ id: requests.id }).from(requests).where(eq(requests.id, request.id)).for('update')
  const before = found.follower ? null : await toldAgain(tx, request.id)
  if (before) refuse('told_already', `You have told us already: it is ${before}, and the desk looks at it again.`, 'text')
  const tracked = await trackedOf(tx, found, now)
  if (!tracked.maySayNotFixed) refuse('not_done', 'It is not done yet; write to the desk instead.', 'text')
  const orders = await ordersAnswering(tx, [request.joinedToId ?? request.id])
  const name = request.reporterName ?? 'Reporter'
  const again = await createRequest(
    tx,
    service,
    site,
    {
      channel: 'counter',
      placeId: request.placeId,
      assetId: request.assetId,
      summary: `Not fixed: ${request.summary}`.slice(0, LONGEST_SUMMARY),
      description: input.text,
      payerId: request.payerId,
      personId: request.reporterId,
      name: request.reporterName ?? undefined,
      email: request.reporterEmail ?? undefined,
      phone: request.reporterPhone ?? undefined,
      repeatsId: request.id,
    },
    now,
  )
  const asker = { accountId: null, name }
  await recordEvent(tx, asker, now, {
    kind: 'request.report',
    siteId: site.id,
    requestId: again.id,
    to: 'new',
    details: { channel: 'counter', repeats: request.number },
  })
  await recordEvent(tx, asker, now, {
    kind: 'request.notFixed',
    siteId: site.id,
    requestId: request.id,
    orderId: orders[0]?.id,
    reason: input.text,
    details: { as: again.number },
  })
  return trackedOf(tx, await requestByLink(tx, input.token, now), now)
})
