import * as contract from '#contract/requests'
import { query } from '#server/kit'
import { conversationOf } from './conversation'
import { seenRequest } from './seenRequest'

export default query(contract.readConversation, async ({ db, who, input }) => conversationOf(db, await seenRequest(db, who, input.id)))
