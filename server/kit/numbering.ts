import { and, eq } from 'drizzle-orm'
import { formatNumber, refuse } from '#core/kit'
import type { Series } from '#core/kit'
import { numberings } from '../tables'
import type { Tx } from './database'
import { notFound } from './problems'

/** The next number of a series, taken inside the transaction: none is skipped or given twice. */
export async function takeNumber(tx: Tx, siteId: number, series: Series): Promise<string> {
  const numbering = await lockNumbering(tx, siteId, series)
  if (!numbering) throw new Error(`No numbering for ${series} at site ${siteId}.`)
  await setNext(tx, siteId, series, numbering.next + 1)
  return formatNumber(numbering.prefix, numbering.next)
}

/**
 * Numbers go on from here, as when moving over from another system. Answers what would have been next.
 * @throws Refusal when numbers from there on were given already
 */
export async function continueFrom(tx: Tx, siteId: number, series: Series, next: number): Promise<number> {
  const before = await lockNumbering(tx, siteId, series)
  if (!before) throw notFound('numbering')
  if (next < before.next) refuse('number_used', `Numbers below ${before.next} are used already.`, 'next')
  await setNext(tx, siteId, series, next)
  return before.next
}

const mine = (siteId: number, series: Series) => and(eq(numberings.siteId, siteId), eq(numberings.series, series))

async function lockNumbering(tx: Tx, siteId: number, series: Series) {
  const [numbering] = await tx.select().from(numberings).where(mine(siteId, series)).for('update')
  return numbering
}

const setNext = (tx: Tx, siteId: number, series: Series, next: number) => tx.update(numberings).set({ next }).where(mine(siteId, series))
