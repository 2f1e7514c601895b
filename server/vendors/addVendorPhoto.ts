import * as contract from '#contract/vendors'
import { refuseAdditions } from '#core/field'
import { keepPhoto } from '#server/field'
import { preparedCommand, readPicture, recordEvent } from '#server/kit'
import { lockPass, openPass } from './openPass'
import { readPassSheet } from './passSheet'

export default preparedCommand(
  contract.addVendorPhoto,
  ({ request }) => readPicture(request.file),
  async ({ tx, input, ready, now }) => {
    const { visit, order, worker } = await lockPass(tx, input.token, now)
    refuseAdditions(order.state)
    await keepPhoto(tx, order, visit, ready, now)
    await recordEvent(tx, worker, now, { kind: 'field.photo', siteId: order.siteId, orderId: order.id, visitId: visit.id })
    return readPassSheet(tx, input.token, now)
  },
  ({ db, input, now }) => openPass(db, input.token, now),
)
