import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { moveRequest } from '#core/requests'
import { command } from '#server/kit'
import { lockRequest, requestFacts } from './facts'
import { saveRequestMove } from './saveRequestMove'

export default command(contract.askReporter, async ({ tx, who, input, now }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  const to = moveRequest(requestFacts(request), 'ask', input.reason)
  if (!request.reporterEmail) refuse('no_address', 'The reporter left no mail address. Call them, and correct the request yourself.')
  return saveRequestMove(tx, who, now, request, 'ask', to, { question: input.reason }, { reason: input.reason })
})
