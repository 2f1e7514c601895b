import { eq, and } from 'drizzle-orm'
import { formatNumber } from '#core/kit'
import type { Tx } from '#server/kit'
import { numberings } from '../tables'

/** The next number of a series, taken inside the transaction: none is skipped or given twice. */
export async function takeNumber(tx: Tx, siteId: number, series: 'request' | 'order'): Promise<string> {
  const mine = and(eq(numberings.siteId, siteId), eq(numberings.series, series))
  const [numbering] = await tx.select().from(numberings).where(mine).for('update')
  if (!numbering) throw new Error(`No numbering for ${series} at site ${siteId}.`)
  await tx
    .update(numberings)
    .set({ next: numbering.next + 1 })
    .where(mine)
  return formatNumber(numbering.prefix, numbering.next)
}
