import { and, asc, eq, gte, lte } from 'drizzle-orm'
import * as contract from '#contract/preventive'
import { query, withinSites } from '#server/kit'
import { assets, dues, orders, preventivePlans } from '../tables'

const DAY = 86_400_000

export default query(contract.listDues, async ({ db, who, now }) => {
  const dayOf = (offset: number) => new Date(now.getTime() + offset * DAY).toISOString().slice(0, 10)
  const rows = await db
    .select({ due: dues, plan: preventivePlans.name, asset: assets.tag, orderNumber: orders.number })
    .from(dues)
    .innerJoin(preventivePlans, eq(preventivePlans.id, dues.planId))
    .leftJoin(assets, eq(assets.id, preventivePlans.assetId))
    .leftJoin(orders, eq(orders.id, dues.orderId))
    .where(and(gte(dues.dueOn, dayOf(-30)), lte(dues.dueOn, dayOf(60)), withinSites(who, preventivePlans.siteId)))
    .orderBy(asc(dues.dueOn), asc(dues.id))
    .limit(300)
  const today = dayOf(0)
  return {
    rows: rows.map(({ due, plan, asset, orderNumber }) => ({
      id: due.id,
      plan,
      asset,
      dueOn: due.dueOn,
      orderId: due.orderId,
      orderNumber,
      state: due.doneAt ? ('done' as const) : due.dueOn < today ? ('late' as const) : due.orderId ? ('ordered' as const) : ('ahead' as const),
    })),
  }
})
