import { eq } from 'drizzle-orm'
import { REQUEST_STATE_NAMES } from '#core/requests'
import type { RequestFacts } from '#core/requests'
import { conflict, maySee, notFound } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { requests } from '../tables'

export type RequestRecord = typeof requests.$inferSelect

export function requestFacts(request: RequestRecord): RequestFacts {
  const { state, placeId, assetId, categoryId, priority, payerId } = request
  return { state, placeId, assetId, categoryId, priority, payerId }
}

export async function lockRequestById(tx: Tx, who: Asker, id: number): Promise<RequestRecord> {
  const [request] = await tx.select().from(requests).where(eq(requests.id, id)).for('update')
  if (!request || !maySee(who, request.siteId)) throw notFound('request')
  return request
}

/** The request, locked. @throws ProblemReply 404, or 409 when it changed since `version` */
export async function lockRequest(tx: Tx, who: Asker, id: number, version: number): Promise<RequestRecord> {
  const request = await lockRequestById(tx, who, id)
  if (request.version !== version) throw conflict(request.version, [{ field: 'state', theirs: REQUEST_STATE_NAMES[request.state], yours: null }])
  return request
}
