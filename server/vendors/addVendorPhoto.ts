import * as contract from '#contract/vendors'
import { keepPhoto } from '#server/field'
import { command, recordEvent } from '#server/kit'
import { lockPass } from './openPass'
import { readPassSheet } from './passSheet'

export default command(contract.addVendorPhoto, async ({ tx, input, request, now }) => {
  const { visit, order, worker } = await lockPass(tx, input.token, now)
  await keepPhoto(tx, order, visit, request.file, now)
  await recordEvent(tx, worker, now, { kind: 'field.photo', siteId: order.siteId, orderId: order.id, visitId: visit.id })
  return readPassSheet(tx, input.token, now)
})
