import { eq } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { sites } from '../tables'

/**
 * Whoever hangs a branch elsewhere at a site waits for whoever does so there at this moment: two who put each of two
 * branches into the other would otherwise both find nothing wrong with it.
 */
export async function lockTree(tx: Tx, siteId: number): Promise<void> {
  await tx.select({ id: sites.id }).from(sites).where(eq(sites.id, siteId)).for('update')
}
