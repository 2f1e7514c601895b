import { and, eq, like, max, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { formatNumber, Refusal, SERIES_NAMES } from '#core/kit'
import type { Reason, Series } from '#core/kit'
import { assets, numberings, orders, purchases, requests, sites } from '../tables'
import type { Tx } from './database'
import { notFound } from './problems'
import { likeText } from './words'

/** The next number of a series, taken inside the transaction: none is skipped or given twice. */
export async function takeNumber(tx: Tx, siteId: number, series: Series): Promise<string> {
  const numbering = await lockNumbering(tx, siteId, series)
  if (!numbering) throw new Error(`No numbering for ${series} at site ${siteId}.`)
  await tx
    .update(numberings)
    .set({ next: numbering.next + 1 })
    .where(mine(siteId, series))
  return formatNumber(numbering.prefix, numbering.next, numbering.digits)
}

export interface NumberingChange {
  prefix?: string
  next?: number
  digits?: number
}

/**
 * Numbers are written and go on like this from now, as when moving over from another system. Answers how it was.
 * @throws Refusal when such numbers were given already, or would be by another series
 */
export async function changeNumbering(tx: Tx, siteId: number, series: Series, change: NumberingChange): Promise<Required<NumberingChange>> {
  // All of them are held, so that two series never take the same letters at once.
  const all = await tx
    .select({ numbering: numberings, site: sites.code })
    .from(numberings)
    .innerJoin(sites, eq(sites.id, numberings.siteId))
    .orderBy(numberings.siteId, numberings.series)
    .for('update')
  const before = all.find(({ numbering }) => numbering.siteId === siteId && numbering.series === series)?.numbering
  if (!before) throw notFound('numbering')
  const after = { prefix: change.prefix ?? before.prefix, next: change.next ?? before.next, digits: change.digits ?? before.digits }
  const reasons: Reason[] = []
  const other = all.find(({ numbering }) => numbering !== before && numbering.prefix === after.prefix)
  if (other)
    reasons.push({
      code: 'prefix_taken',
      sentence: `${after.prefix} is what ${SERIES_NAMES[other.numbering.series].toLowerCase()} of ${other.site} begin with.`,
      field: 'prefix',
    })
  const used = Math.max(await lastUsed(tx, series, after.prefix), after.prefix === before.prefix ? before.next - 1 : 0)
  if (after.next <= used)
    reasons.push({
      code: 'number_used',
      sentence: `Numbers up to ${formatNumber(after.prefix, used, after.digits)} are used already: go on from ${used + 1} or later.`,
      field: change.next === undefined ? 'prefix' : 'next',
    })
  if (reasons.length) throw new Refusal(reasons)
  await tx.update(numberings).set(after).where(mine(siteId, series))
  return { prefix: before.prefix, next: before.next, digits: before.digits }
}

const WRITTEN = {
  request: { table: requests, column: requests.number },
  order: { table: orders, column: orders.number },
  asset: { table: assets, column: assets.tag },
  purchase: { table: purchases, column: purchases.number },
}

/** The highest number that was ever given with these letters. */
async function lastUsed(tx: Tx, series: Series, prefix: string): Promise<number> {
  const { table, column } = WRITTEN[series]
  const digits: SQL<number> = sql`cast(substring(${column}, ${prefix.length + 2}) as unsigned)`
  const [row] = await tx
    .select({ most: max(digits) })
    .from(table)
    .where(and(like(column, `${likeText(prefix)}-%`), sql`substring(${column}, ${prefix.length + 2}) regexp '^[0-9]{1,9}$'`))
  return Number(row?.most ?? 0)
}

const mine = (siteId: number, series: Series) => and(eq(numberings.siteId, siteId), eq(numberings.series, series))

async function lockNumbering(tx: Tx, siteId: number, series: Series) {
  const [numbering] = await tx.select().from(numberings).where(mine(siteId, series)).for('update')
  return numbering
}
