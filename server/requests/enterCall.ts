import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { command, maySee, notFound } from '#server/kit'
import { sites } from '../tables'
import { createRequest } from './createRequest'

export default command(contract.enterCall, async ({ tx, who, input, service, now, tell }) => {
  const [site] = await tx.select().from(sites).where(eq(sites.id, input.siteId))
  if (!site || !maySee(who, site.id)) throw notFound('site')
  const { id, number } = await createRequest(tx, service, site, { ...input, channel: 'call' }, now)
  await tell({ kind: 'request.report', siteId: site.id, requestId: id, to: 'new', details: { channel: 'call' } })
  return { id, number }
})
