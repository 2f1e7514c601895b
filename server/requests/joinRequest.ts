import * as contract from '#contract/requests'
import { moveRequest } from '#core/requests'
import { command } from '#server/kit'
import { lockRequest, requestFacts } from './facts'
import { joinTo } from './joinTo'

export default command(contract.joinRequest, async ({ tx, who, input, now }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  return joinTo(tx, who, now, request, moveRequest(requestFacts(request), 'join', null), input.toId)
})
