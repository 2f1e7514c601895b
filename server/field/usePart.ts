import * as contract from '#contract/field'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { issuePart } from '#server/stock'
import { readJobSheet } from './jobSheet'
import { lockMyVisit } from './myVisit'

export default command(contract.usePart, async ({ tx, who, input, now, tell }) => {
  const { visit, order } = await lockMyVisit(tx, who, input.visitId)
  if (order.state !== 'on_job') refuse('not_started', 'Start the clock before you use a part.')
  const { partId, quantity } = input
  const part = await issuePart(tx, { siteId: order.siteId, orderId: order.id, visitId: visit.id, partId, quantity, at: now, by: who.accountId })
  await tell({
    kind: 'field.part',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { part: part.name, quantity, unit: part.unit },
  })
  return readJobSheet(tx, who, visit.id)
})
