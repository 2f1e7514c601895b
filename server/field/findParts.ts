import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import Big from 'big.js'
import * as contract from '#contract/field'
import type { FoundPart } from '#contract/field'
import { query, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { matchesWords } from '#server/places'
import { whereLies } from '#server/stock'
import { parts, stores } from '../tables'

const MOST = 12

export default query(contract.findParts, async ({ db, who, input }) => ({
  rows: await partsLike(db, who, and(matchesWords(parts.searchText, input.q), isNull(parts.retiredAt)), withinSites(who, stores.siteId), MOST),
}))

/** Parts that fit, by name, with where they lie in these stores. */
export async function partsLike(db: Reader, who: Asker, where: SQL | undefined, inStores: SQL | undefined, limit: number): Promise<FoundPart[]> {
  const rows = await db
    .select({ id: parts.id, code: parts.code, name: parts.name, unit: parts.unit })
    .from(parts)
    .where(where)
    .orderBy(asc(parts.name))
    .limit(limit)
  return withLies(db, who, rows, inStores)
}

/** Those of the parts that lie in stores of a site, by name. */
export async function partsAt(db: Reader, who: Asker, siteId: number, limit: number): Promise<FoundPart[]> {
  const inStores = eq(stores.siteId, siteId)
  const lies = await whereLies(db, { where: inStores, accountId: who.accountId })
  if (!lies.size) return []
  return partsLike(db, who, and(inArray(parts.id, [...lies.keys()]), isNull(parts.retiredAt)), inStores, limit)
}

async function withLies(db: Reader, who: Asker, rows: Omit<FoundPart, 'inStock' | 'lies'>[], where: SQL | undefined): Promise<FoundPart[]> {
  const lies = await whereLies(db, { where, accountId: who.accountId, partIds: rows.map(({ id }) => id) })
  return rows.map((row) => {
    const lying = lies.get(row.id) ?? []
    return { ...row, inStock: lying.reduce((all, { free }) => all.plus(free), new Big(0)).toString(), lies: lying }
  })
}
