import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { moveRequest } from '#core/requests'
import { command, mustKnow, mySite } from '#server/kit'
import { places } from '../tables'
import { createRequest } from './createRequest'
import { lockRequestById, requestFacts } from './facts'
import { joinTo } from './joinTo'

export default command(contract.enterCall, async ({ tx, who, input, service, now, tell }) => {
  const [place] = input.siteId ? [] : await tx.select({ siteId: places.siteId }).from(places).where(eq(places.id, input.placeId))
  const site = await mySite(tx, who, input.siteId ?? place?.siteId ?? 0, input.siteId ? 'siteId' : 'placeId')
  await mustKnow(tx, { siteId: site.id, who }, { personId: ['person', input.personId] })
  const channel = input.channel ?? 'call'
  const { id, number } = await createRequest(tx, service, site, { ...input, channel }, now)
  await tell({ kind: 'request.report', siteId: site.id, requestId: id, to: 'new', details: { channel } })
  if (input.joinToId) {
    const request = await lockRequestById(tx, who, id)
    await joinTo(tx, who, now, request, moveRequest(requestFacts(request), 'join', null), input.joinToId)
  }
  return { id, number }
})
