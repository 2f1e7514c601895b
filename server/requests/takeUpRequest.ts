import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { requests } from '../tables'
import { lockRequest } from './facts'

export default command(contract.takeUpRequest, async ({ tx, who, input, now, tell }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  if (request.takenUpAt) refuse('taken_up', 'Somebody has taken it up already.')
  const version = request.version + 1
  await tx.update(requests).set({ takenUpAt: now, takenUpBy: who.accountId, version }).where(eq(requests.id, request.id))
  await tell({ kind: 'request.takeUp', siteId: request.siteId, requestId: request.id, from: request.state, to: request.state })
  return { id: request.id, version, state: request.state }
})
