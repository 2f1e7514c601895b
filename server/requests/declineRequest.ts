import * as contract from '#contract/requests'
import { moveRequest } from '#core/requests'
import { command } from '#server/kit'
import { lockRequest, requestFacts } from './facts'
import { saveRequestMove } from './saveRequestMove'

export default command(contract.declineRequest, async ({ tx, who, input, now }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  const to = moveRequest(requestFacts(request), 'decline', input.reason)
  return saveRequestMove(tx, who, now, request, 'decline', to, { declineReason: input.reason, question: null }, { reason: input.reason })
})
