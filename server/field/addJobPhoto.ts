import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import { preparedCommand, readPicture } from '#server/kit'
import { readJobSheet } from './jobSheet'
import { keepPhoto } from './keepPhoto'
import { lockMyVisit, myVisit } from './myVisit'

export default preparedCommand(
  contract.addJobPhoto,
  ({ request }) => readPicture(request.file),
  async ({ tx, who, input, ready, now, tell }) => {
    const { visit, order } = await lockMyVisit(tx, who, input.visitId)
    refuseAdditions(order.state)
    await keepPhoto(tx, order, visit, ready, now)
    await tell({ kind: 'field.photo', siteId: order.siteId, orderId: order.id, visitId: visit.id })
    return readJobSheet(tx, who, visit.id)
  },
  ({ db, who, input }) => myVisit(db, who, input.visitId),
)
