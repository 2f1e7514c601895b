import * as contract from '#contract/field'
import { command } from '#server/kit'
import { readJobSheet } from './jobSheet'
import { keepPhoto } from './keepPhoto'
import { lockMyVisit } from './myVisit'

export default command(contract.addJobPhoto, async ({ tx, who, input, request, now, tell }) => {
  const { visit, order } = await lockMyVisit(tx, who, input.visitId)
  await keepPhoto(tx, order, visit, request.file, now)
  await tell({ kind: 'field.photo', siteId: order.siteId, orderId: order.id, visitId: visit.id })
  return readJobSheet(tx, who, visit.id)
})
