import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { hearReporter } from './conversation'
import { attachClaimed } from './keepFile'
import { requestByLink, trackedOf } from './tracked'

export default command(contract.writeAsReporter, async ({ tx, input, now }) => {
  const found = await requestByLink(tx, input.token, now)
  if (found.follower) refuse('following', 'You follow this; write to the desk about your own.', 'text')
  if (found.request.state === 'declined') refuse('declined', 'This was closed with an answer. Call the desk, or report it anew.', 'text')
  const commentId = await hearReporter(tx, found.request, now, { name: found.request.reporterName ?? 'Reporter', text: input.text, by: 'page' })
  await attachClaimed(tx, found.site.id, input.fileClaims ?? [], { requestId: found.request.id, commentId })
  return trackedOf(tx, found, now)
})
