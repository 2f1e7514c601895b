import { eq } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { moveRequest } from '#core/requests'
import { command } from '#server/kit'
import { requests } from '../tables'
import { lockRequest, requestFacts } from './facts'
import { saveRequestMove } from './saveRequestMove'

export default command(contract.joinRequest, async ({ tx, who, input, now }) => {
  const request = await lockRequest(tx, who, input.id, input.version)
  const to = moveRequest(requestFacts(request), 'join', null)
  const [main] = await tx.select().from(requests).where(eq(requests.id, input.toId))
  if (!main || main.siteId !== request.siteId || main.id === request.id) refuse('request_unknown', 'Choose the request it repeats.', 'toId')
  if (main.state === 'joined' || main.state === 'declined')
    refuse('request_over', `${main.number} is ${main.state}; choose the one that is being worked on.`, 'toId')
  return saveRequestMove(tx, who, now, request, 'join', to, { joinedToId: main.id, question: null }, { details: { to: main.number } })
})
