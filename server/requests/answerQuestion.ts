import * as contract from '#contract/requests'
import { moveRequest } from '#core/requests'
import { command } from '#server/kit'
import { requestFacts } from './facts'
import { saveRequestMove } from './saveRequestMove'
import { requestByLink, trackedOf } from './tracked'

export default command(contract.answerQuestion, async ({ tx, input, now }) => {
  const found = await requestByLink(tx, input.token, now)
  const to = moveRequest(requestFacts(found.request), 'answer', input.answer)
  await saveRequestMove(
    tx,
    { accountId: null, name: found.request.reporterName ?? 'Reporter' },
    now,
    found.request,
    'answer',
    to,
    { question: null },
    { reason: input.answer },
  )
  return trackedOf(tx, await requestByLink(tx, input.token, now), now)
})
