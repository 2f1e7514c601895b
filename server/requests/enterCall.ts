import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { moveRequest } from '#core/requests'
import { command, maySee, notFound } from '#server/kit'
import { sites } from '../tables'
import { createRequest } from './createRequest'
import { lockRequestById, requestFacts } from './facts'
import { joinTo } from './joinTo'

export default command(contract.enterCall, async ({ tx, who, input, service, now, tell }) => {
  const [site] = await tx.select().from(sites).where(eq(sites.id, input.siteId))
  if (!site || !maySee(who, site.id)) throw notFound('site')
  const channel = input.channel ?? 'call'
  const { id, number } = await createRequest(tx, service, site, { ...input, channel }, now)
  await tell({ kind: 'request.report', siteId: site.id, requestId: id, to: 'new', details: { channel } })
  if (input.joinToId) {
    const request = await lockRequestById(tx, who, id)
    await joinTo(tx, who, now, request, moveRequest(requestFacts(request), 'join', null), input.joinToId)
  }
  return { id, number }
})
