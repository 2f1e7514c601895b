import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { isUndecided, levelSaid, PRIORITY_NAMES, prioritySaid, priorityWithHazard } from '#core/requests'
import { changesOf, command, conflict, mustKnow } from '#server/kit'
import type { Tx } from '#server/kit'
import { rulesOf } from '#server/orders'
import { requests } from '../tables'
import { lockRequestById } from './facts'
import type { RequestRecord } from './facts'
import { readRequestSheet } from './readRequestSheet'

export default command(contract.triageRequest, async ({ tx, who, input, now, tell }) => {
  const { id, version, priority: wanted, priorityReason, ...sent } = input
  const request = await lockRequestById(tx, who, id)
  const { fields, differences } = changesOf(request, sent)
  if (request.version !== version) throw conflict(request.version, differences)
  if (!isUndecided(request.state)) refuse('decided', 'It has been decided; change the order instead.')
  await mustKnow(
    tx,
    { siteId: request.siteId, who },
    {
      placeId: ['place', fields.placeId],
      assetId: ['asset', fields.assetId],
      categoryId: ['category', fields.categoryId],
      payerId: ['payer', fields.payerId],
    },
  )
  const patch: Partial<RequestRecord> = { ...fields, ...(await priorityPatch(tx, request, fields, wanted, priorityReason)) }
  if (patch.priority && patch.priority !== request.priority) differences.push({ field: 'priority', theirs: request.priority, yours: patch.priority })
  if (differences.length) {
    const taken = request.takenUpAt ? {} : { takenUpAt: now, takenUpBy: who.accountId }
    await tx
      .update(requests)
      .set({ ...patch, ...taken, version: version + 1 })
      .where(eq(requests.id, id))
    await tell({
      kind: 'request.edit',
      siteId: request.siteId,
      requestId: id,
      from: request.state,
      to: request.state,
      reason: wanted ? priorityReason : null,
      details: { fields: Object.fromEntries(differences.map(({ field, theirs, yours }) => [field, { from: theirs, to: yours }])) },
    })
  }
  return readRequestSheet(tx, who, id, now)
})

/** From consequence and urgency, unless somebody overrode it with a reason. */
async function priorityPatch(
  tx: Tx,
  request: RequestRecord,
  fields: Partial<RequestRecord>,
  wanted: RequestRecord['priority'] | undefined,
  reason: string | undefined,
): Promise<Partial<RequestRecord>> {
  const { matrix, hazards } = await rulesOf(tx, request.siteId)
  const said = { ...request, ...fields }
  if (wanted) {
    if (priorityWithHazard(wanted, levelSaid(said, hazards)) !== wanted)
      refuse('hazard_high', 'Its hazard is high, so it is never less than an Emergency. Change what is said of the hazard first.', 'priority')
    if (!reason) refuse('reason_missing', 'Say why it is not what consequence and urgency give.', 'priorityReason')
    return { priority: wanted, prioritySentence: `${PRIORITY_NAMES[wanted]}, set by hand: ${reason}`, priorityOverridden: true }
  }
  if (!(['consequence', 'urgency', 'hazardSeverity', 'hazardLikelihood'] as const).some((field) => field in fields)) return {}
  const verdict = prioritySaid(said, matrix, hazards)
  return { priority: verdict?.priority ?? null, prioritySentence: verdict?.sentence ?? null, priorityOverridden: false }
}
