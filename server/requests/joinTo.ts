import { eq } from 'drizzle-orm'
import type { Done } from '#contract/kit'
import { refuse } from '#core/kit'
import type { RequestState } from '#core/requests'
import type { Asker, Tx } from '#server/kit'
import { requests } from '../tables'
import type { RequestRecord } from './facts'
import { saveRequestMove } from './saveRequestMove'

/** Joins a request to the one it repeats. @throws Refusal when that one is unknown here, itself, or over */
export async function joinTo(tx: Tx, who: Asker, now: Date, request: RequestRecord, to: RequestState, toId: number): Promise<Done> {
  const [main] = await tx.select().from(requests).where(eq(requests.id, toId))
  if (!main || main.siteId !== request.siteId || main.id === request.id) refuse('request_unknown', 'Choose the request it repeats.', 'toId')
  if (main.state === 'joined' || main.state === 'declined')
    refuse('request_over', `${main.number} is ${main.state}; choose the one that is being worked on.`, 'toId')
  return saveRequestMove(tx, who, now, request, 'join', to, { joinedToId: main.id, question: null }, { details: { to: main.number } })
}
