import * as contract from '#contract/field'
import { refuseAdditions } from '#core/field'
import { jobCommand } from './jobCommand'

export default jobCommand(contract.addNote, async ({ input, visit, order, tell }) => {
  refuseAdditions(order.state)
  await tell({ kind: 'field.note', siteId: order.siteId, orderId: order.id, visitId: visit.id, reason: input.text })
})
