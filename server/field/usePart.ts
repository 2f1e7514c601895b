import * as contract from '#contract/field'
import { refuse } from '#core/kit'
import { issuePart } from '#server/stock'
import { jobCommand } from './jobCommand'

export default jobCommand(contract.usePart, async ({ tx, who, input, visit, order, at, tell }) => {
  if (order.state !== 'on_job') refuse('not_started', 'Start the clock before you use a part.')
  const { partId, quantity } = input
  const part = await issuePart(tx, { siteId: order.siteId, orderId: order.id, visitId: visit.id, partId, quantity, at, by: who.accountId })
  await tell({
    kind: 'field.part',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { part: part.name, quantity, unit: part.unit },
  })
})
