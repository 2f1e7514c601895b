import * as contract from '#contract/field'
import { hazardsAsRead } from '#core/field'
import { refuse } from '#core/kit'
import { PERMIT_NAMES } from '#core/methods'
import { noteHazardsRead } from '#server/dispatch/records'
import { permits } from '../tables'
import { jobCommand } from './jobCommand'
import { hazardsOf } from './safety'

export const readHazards = jobCommand(contract.readHazards, async ({ tx, input, visit, order, at, tell }) => {
  const now = hazardsAsRead(await hazardsOf(tx, order.id))
  if (input.read !== now) refuse('hazards_changed', 'The hazards have changed since you read them. Read them again.', 'hazards')
  await noteHazardsRead(tx, visit, now, at)
  await tell({ kind: 'field.hazards', siteId: order.siteId, orderId: order.id, visitId: visit.id })
})

export const holdPermit = jobCommand(contract.holdPermit, async ({ tx, input, visit, order, at, tell }) => {
  if (visit.state === 'ended') refuse('visit_over', 'You have left this job. The desk can send you again.')
  const { kind, number } = input
  const [fromAt, untilAt] = [new Date(input.fromAt), new Date(input.untilAt)]
  await tx.insert(permits).values({ orderId: order.id, visitId: visit.id, kind, number, fromAt, untilAt, at })
  await tell({
    kind: 'field.permit',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { permit: PERMIT_NAMES[kind], number, start: fromAt.toISOString(), end: untilAt.toISOString() },
  })
})
