import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import * as contract from '#contract/field'
import { query } from '#server/kit'
import { matchesWords } from '#server/places'
import { parts, stockLevels } from '../tables'

export default query(contract.findParts, async ({ db, input }) => ({
  rows: await db
    .select({ id: parts.id, code: parts.code, name: parts.name, unit: parts.unit, inStock: sql<string>`coalesce(sum(${stockLevels.quantity}), 0)` })
    .from(parts)
    .leftJoin(stockLevels, eq(stockLevels.partId, parts.id))
    .where(and(matchesWords(parts.searchText, input.q), isNull(parts.retiredAt)))
    .groupBy(parts.id)
    .orderBy(asc(parts.name))
    .limit(12),
}))
