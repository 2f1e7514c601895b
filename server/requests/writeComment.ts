import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { comments } from '../tables'
import { conversationOf, reachedBy } from './conversation'
import { lockRequestById } from './facts'

export default command(contract.writeComment, async ({ tx, who, input, now, tell }) => {
  const request = await lockRequestById(tx, who, input.id)
  const reaches = input.kind === 'message' ? reachedBy(request) : []
  if (input.kind === 'message' && !reaches.length)
    refuse('no_address', 'The reporter left no mail address. Call them, and write down what was said as a note.', 'text')
  await tx.insert(comments).values({ requestId: request.id, kind: input.kind, accountId: who.accountId, authorName: who.name, text: input.text, at: now })
  await tell({ kind: `request.${input.kind}`, siteId: request.siteId, requestId: request.id, reason: input.text })
  return conversationOf(tx, request)
})
