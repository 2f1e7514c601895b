import type { Actor, Tell, Tx } from '#server/kit'
import { comments } from '../tables'
import type { RequestRecord } from './facts'

/** A note on a request, for the desk alone. */
export async function noteOn(tx: Tx, who: Pick<Actor, 'accountId' | 'name'>, request: RequestRecord, text: string, at: Date, tell: Tell): Promise<void> {
  await tx.insert(comments).values({ requestId: request.id, kind: 'note', accountId: who.accountId, authorName: who.name, text, at })
  await tell({ kind: 'request.note', siteId: request.siteId, requestId: request.id, reason: text })
}
