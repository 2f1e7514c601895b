import * as contract from '#contract/vendors'
import { refuseAdditions } from '#core/field'
import { command, recordEvent } from '#server/kit'
import { lockPass } from './openPass'
import { readPassSheet } from './passSheet'

export default command(contract.addVendorNote, async ({ tx, input, now }) => {
  const { visit, order, worker } = await lockPass(tx, input.token, now)
  refuseAdditions(order.state)
  await recordEvent(tx, worker, now, { kind: 'field.note', siteId: order.siteId, orderId: order.id, visitId: visit.id, reason: input.text })
  return readPassSheet(tx, input.token, now)
})
