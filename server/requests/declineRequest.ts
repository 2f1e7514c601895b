import type { Done } from '#contract/kit'
import * as contract from '#contract/requests'
import { moveRequest } from '#core/requests'
import { command } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { lockRequest, requestFacts } from './facts'
import { saveRequestMove } from './saveRequestMove'

export default command(contract.declineRequest, ({ tx, who, input, now }) => decline(tx, who, now, input))

/** Declines one request; the reporter is told why. */
export async function decline(tx: Tx, who: Asker, now: Date, { id, version, reason }: { id: number; version: number; reason: string }): Promise<Done> {
  const request = await lockRequest(tx, who, id, version)
  const to = moveRequest(requestFacts(request), 'decline', reason)
  return saveRequestMove(tx, who, now, request, 'decline', to, { declineReason: reason, question: null }, { reason })
}
