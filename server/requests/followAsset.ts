import { and, eq, inArray } from 'drizzle-orm'
import { UNDECIDED_STATES } from '#core/requests'
import type { Tx } from '#server/kit'
import { requests } from '../tables'

/** Requests about assets that go elsewhere, and that nobody has decided yet, go along. */
export async function requestsFollowAssets(tx: Tx, assetIds: number[], { siteId, placeId }: { siteId: number; placeId: number }): Promise<void> {
  const open = await tx
    .select({ id: requests.id, version: requests.version })
    .from(requests)
    .where(and(inArray(requests.assetId, assetIds), inArray(requests.state, UNDECIDED_STATES)))
    .for('update')
  for (const { id, version } of open)
    await tx
      .update(requests)
      .set({ siteId, placeId, version: version + 1 })
      .where(eq(requests.id, id))
}
