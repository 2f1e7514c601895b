import { dispatchOrder } from '#contract/dispatch'
import { finishJob, switchStint } from '#contract/field'
import { approveOrder, checkOrder, editOrder, readOrder, submitOrder } from '#contract/orders'
import type { NewRequest } from '#contract/requests'
import { acceptRequest, readRequest, reportRequest, triageRequest } from '#contract/requests'
import { Client } from './client'

/** The people most tests need, each signed in. */
export interface Cast {
  coordinator: Client
  approver: Client
  technician: Client
  clerk: Client
  anybody: Client
}

/** Everybody of the demo world that most tests need, signed in at this server. */
export async function castAt(url: string): Promise<Cast> {
  const person = (name: string) => new Client(url).signIn(name)
  const [coordinator, approver, technician, clerk] = await Promise.all(['maren.quill', 'ines.ferrall', 'bram.oyelaran', 'petra.lindqvist'].map(person))
  return { coordinator: coordinator!, approver: approver!, technician: technician!, clerk: clerk!, anybody: new Client(url) }
}

/** A request reported at the Counter; answers its id and private link. */
export async function report(cast: Cast, more: Partial<NewRequest> = {}) {
  const sent = await cast.anybody.must(reportRequest, describeReport(more))
  const { rows } = await import('#contract/requests').then(({ listRequests }) => cast.coordinator.must(listRequests, { q: sent.number }))
  return { ...sent, id: rows[0]!.id, token: sent.link.split('/').at(-1)! }
}

function describeReport(more: Partial<NewRequest>): NewRequest {
  return {
    site: 'SKE',
    placeId: 20,
    summary: 'The left light over the sink is out',
    description: 'The left one of three, since this morning. I saw it myself.',
    name: 'Aoife Ashdown',
    email: 'aoife@reporter.example',
    ...more,
  }
}

/** Triaged and accepted; answers the draft's id. */
export async function accepted(cast: Cast, requestId: number): Promise<number> {
  const { version } = await cast.coordinator.must(readRequest, { id: requestId })
  const sheet = await cast.coordinator.must(triageRequest, { id: requestId, version, categoryId: 1, consequence: 'one_person', urgency: 'today', payerId: 3 })
  return (await cast.coordinator.must(acceptRequest, { id: requestId, version: sheet.version })).orderId
}

/** Everything an approver needs to see. */
export const complete = { tradeId: 1, teamId: 1, supervisorId: 3, leadId: 1, estimateMinor: 20_000 }

export async function version(cast: Cast, id: number): Promise<number> {
  return (await cast.coordinator.must(readOrder, { id })).version
}

export async function approved(cast: Cast, orderId: number): Promise<void> {
  await cast.coordinator.must(editOrder, { id: orderId, version: await version(cast, orderId), ...complete })
  await cast.coordinator.must(submitOrder, { id: orderId, version: await version(cast, orderId) })
  await cast.approver.must(approveOrder, { id: orderId, version: await version(cast, orderId) })
}

/** Sent to the technician of the cast (Bram Oyelaran) in an hour; answers the visit's id. */
export async function dispatched(cast: Cast, orderId: number, who: { technicianIds?: number[]; vendorId?: number } = { technicianIds: [1] }): Promise<number> {
  const now = new Date('2026-11-23T10:30:00Z').getTime()
  await cast.coordinator.must(dispatchOrder, {
    id: orderId,
    version: await version(cast, orderId),
    ...who,
    start: new Date(now + 3_600_000).toISOString(),
    end: new Date(now + 7_200_000).toISOString(),
  })
  return (await cast.coordinator.must(readOrder, { id: orderId })).visits.at(-1)!.id
}

export async function worked(cast: Cast, visitId: number): Promise<void> {
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'Not working', cause: 'Wear', fix: 'Replaced' })
}

/** A fresh order taken as far as asked. */
export async function orderAt(
  cast: Cast,
  state: 'draft' | 'to_approve' | 'ready' | 'dispatched' | 'done' | 'checked',
  who?: Parameters<typeof dispatched>[2],
): Promise<{ id: number; visitId: number; token: string; requestId: number }> {
  const request = await report(cast)
  const id = await accepted(cast, request.id)
  const at = { id, visitId: 0, token: request.token, requestId: request.id }
  if (state === 'draft') return at
  if (state === 'to_approve') {
    await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete })
    await cast.coordinator.must(submitOrder, { id, version: await version(cast, id) })
    return at
  }
  await approved(cast, id)
  if (state === 'ready') return at
  at.visitId = await dispatched(cast, id, who)
  if (state === 'dispatched') return at
  await worked(cast, at.visitId)
  if (state === 'done') return at
  await cast.coordinator.must(checkOrder, { id, version: await version(cast, id) })
  return at
}
