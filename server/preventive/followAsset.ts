import { inArray } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { preventivePlans } from '../tables'

/** Preventive plans of assets that go elsewhere go along. */
export async function plansFollowAssets(tx: Tx, assetIds: number[], { siteId }: { siteId: number }): Promise<void> {
  await tx.update(preventivePlans).set({ siteId }).where(inArray(preventivePlans.assetId, assetIds))
}
