import { and, eq, inArray, isNotNull, sql } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import { FINISHED_STATES } from '#core/orders'
import { query, withinSites } from '#server/kit'
import { costByYear } from '#server/ledger'
import { seenRecord } from '#server/registers'
import { orders, sites } from '../tables'
import { KEEPERS } from './keepers'

export default query(contract.readPortraitCosts, async ({ db, who, input }) => {
  const keeper = KEEPERS[input.register]
  const row = await seenRecord(db, keeper, who, input.id)
  const on = keeper.orders?.(row as never)
  const siteId = row.siteId ?? who.siteIds?.[0] ?? who.homeSiteId
  const [site] = await db
    .select({ currency: sites.currency })
    .from(sites)
    .where(siteId ? eq(sites.id, siteId) : sql`true`)
    .orderBy(sites.id)
    .limit(1)
  if (!on) return { years: [], currency: site!.currency }
  const which = and(on, inArray(orders.state, FINISHED_STATES), isNotNull(orders.finishedAt), withinSites(who, orders.siteId))!
  return { years: await costByYear(db, which), currency: site!.currency }
})
