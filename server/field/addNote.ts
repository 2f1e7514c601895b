import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import { command } from '#server/kit'
import { readJobSheet } from './jobSheet'
import { lockMyVisit } from './myVisit'

export default command(contract.addNote, async ({ tx, who, input, tell }) => {
  const { visit, order } = await lockMyVisit(tx, who, input.visitId)
  refuseAdditions(order.state)
  await tell({ kind: 'field.note', siteId: order.siteId, orderId: order.id, visitId: visit.id, reason: input.text })
  return readJobSheet(tx, who, visit.id)
})
