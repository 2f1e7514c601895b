import { eq } from 'drizzle-orm'
import { maySee, notFound } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { requests } from '../tables'
import type { RequestRecord } from './facts'

/** The request by itself. @throws ProblemReply 404 when it is not theirs to see */
export async function seenRequest(db: Reader, who: Asker, id: number): Promise<RequestRecord> {
  const [request] = await db.select().from(requests).where(eq(requests.id, id))
  if (!request || !maySee(who, request.siteId)) throw notFound('request')
  return request
}
