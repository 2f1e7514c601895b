import * as contract from '#contract/field'
import { hazardsAsRead } from '#core/field'
import { refuse } from '#core/kit'
import { PERMIT_NAMES } from '#core/methods'
import type { Permit } from '#core/methods'
import { noteHazardsRead } from '#server/dispatch/records'
import { permits } from '../tables'
import { jobCommand } from './jobCommand'
import type { OnSite } from './onSite'
import { hazardsOf } from './safety'

export const readHazards = jobCommand(contract.readHazards, (job) => readHazardsOn(job, job.input.read))

/** @param read what was read @throws Refusal when the hazards are others by now */
export async function readHazardsOn({ tx, visit, order, at, tell }: OnSite, read: string): Promise<void> {
  const now = hazardsAsRead(await hazardsOf(tx, order.id))
  if (read !== now) refuse('hazards_changed', 'The hazards have changed since you read them. Read them again.', 'hazards')
  await noteHazardsRead(tx, visit, now, at)
  await tell({ kind: 'field.hazards', siteId: order.siteId, orderId: order.id, visitId: visit.id })
}

interface Held {
  kind: Permit
  number: string
  fromAt: string
  untilAt: string
}
export const holdPermit = jobCommand(contract.holdPermit, (job) => holdPermitOn(job, job.input))

export async function holdPermitOn({ tx, visit, order, at, tell }: OnSite, { kind, number, ...held }: Held): Promise<void> {
  if (visit.state === 'ended') refuse('visit_over', 'You have left this job. The desk can send you again.')
  const [fromAt, untilAt] = [new Date(held.fromAt), new Date(held.untilAt)]
  await tx.insert(permits).values({ orderId: order.id, visitId: visit.id, kind, number, fromAt, untilAt, at })
  await tell({
    kind: 'field.permit',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { permit: PERMIT_NAMES[kind], number, start: fromAt.toISOString(), end: untilAt.toISOString() },
  })
}
