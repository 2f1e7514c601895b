import * as contract from '#contract/requests'
import { Refusal } from '#core/kit'
import { counterFieldsOf, counterReasons } from '#core/requests'
import { command, recordEvent } from '#server/kit'
import { createRequest } from './createRequest'
import { siteByCode } from './siteByCode'

export default command(contract.reportRequest, async ({ tx, input, service, now }) => {
  const site = await siteByCode(tx, input.site)
  const missing = counterReasons(counterFieldsOf(site.counterFields), {
    category: !!input.categoryId,
    asset: !!input.assetId,
    photo: !!input.fileClaims?.length,
    name: !!input.name,
    email: !!input.email,
    phone: !!input.phone,
    wish: !!input.wish,
  })
  if (missing.length) throw new Refusal(missing)
  const { id, number, link } = await createRequest(tx, service, site, { ...input, channel: 'counter' }, now)
  await recordEvent(tx, { accountId: null, name: input.name || 'Reporter' }, now, {
    kind: 'request.report',
    siteId: site.id,
    requestId: id,
    to: 'new',
    details: { channel: 'counter' },
  })
  return { number, link }
})
