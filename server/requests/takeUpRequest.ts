import { eq } from 'drizzle-orm'
import type { Done } from '#contract/kit'
import * as contract from '#contract/requests'
import { refuse } from '#core/kit'
import { command, recordEvent } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { requests } from '../tables'
import { lockRequest } from './facts'

export default command(contract.takeUpRequest, ({ tx, who, input, now }) => takeUp(tx, who, now, input))

/** Takes one request from Intake into Triage. */
export async function takeUp(tx: Tx, who: Asker, now: Date, input: { id: number; version: number }): Promise<Done> {
  const request = await lockRequest(tx, who, input.id, input.version)
  if (request.state !== 'new') refuse('decided', 'It has been decided already.')
  if (request.takenUpAt) refuse('taken_up', 'Somebody has taken it up already.')
  const version = request.version + 1
  await tx.update(requests).set({ takenUpAt: now, takenUpBy: who.accountId, version }).where(eq(requests.id, request.id))
  await recordEvent(tx, who, now, { kind: 'request.takeUp', siteId: request.siteId, requestId: request.id, from: request.state, to: request.state })
  return { id: request.id, version, state: request.state }
}
