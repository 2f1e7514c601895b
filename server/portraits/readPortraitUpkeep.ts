import { and, asc, eq, inArray, isNull, like, max, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import { query, withinSites } from '#server/kit'
import type { Reader } from '#server/kit'
import { newestReadings } from '#server/meters/records'
import { seenRecord } from '#server/registers'
import { assets, dues, meters, orders, places, preventivePlans } from '../tables'
import { KEEPERS } from './keepers'

const MOST_PLANS = 60
const MOST_METERS = 20

/** Of what has plans at all: a place with everything in it, an asset with its parts. */
export default query(contract.readPortraitUpkeep, async ({ db, who, input, now }) => {
  const row = await seenRecord(db, KEEPERS[input.register], who, input.id)
  if (input.register !== 'places' && input.register !== 'assets') return { plans: [], meters: [] }
  const path = String(row.path)
  const inside = sql`(select at_place.id from ${places} at_place where at_place.path like ${`${path}%`})`
  const itsAssets = input.register === 'assets' ? like(assets.path, `${path}%`) : sql`${assets.placeId} in ${inside}`
  const of = input.register === 'assets' ? itsAssets : or(itsAssets, sql`${preventivePlans.placeId} in ${inside}`)
  const plans = await db
    .select({ id: preventivePlans.id, name: preventivePlans.name, rule: preventivePlans.rule, assetId: preventivePlans.assetId, tag: assets.tag })
    .from(preventivePlans)
    .leftJoin(assets, eq(assets.id, preventivePlans.assetId))
    .where(and(of, withinSites(who, preventivePlans.siteId)))
    .orderBy(asc(preventivePlans.name), asc(preventivePlans.id))
    .limit(MOST_PLANS)
  const ids = plans.map(({ id }) => id)
  const [ahead, done, itsMeters] = await Promise.all([
    ids.length
      ? db
          .select({ planId: dues.planId, dueOn: dues.dueOn, orderId: dues.orderId, orderNumber: orders.number })
          .from(dues)
          .leftJoin(orders, eq(orders.id, dues.orderId))
          .where(and(inArray(dues.planId, ids), isNull(dues.doneAt)))
          .orderBy(asc(dues.dueOn))
      : [],
    ids.length
      ? db
          .select({ planId: dues.planId, lastDoneOn: max(dues.dueOn) })
          .from(dues)
          .where(and(inArray(dues.planId, ids), sql`${dues.doneAt} is not null`))
          .groupBy(dues.planId)
      : [],
    metersOf(db, itsAssets),
  ])
  const today = now.toISOString().slice(0, 10)
  return {
    plans: plans.map(({ id, name, rule, assetId, tag }) => {
      const next = ahead.find(({ planId }) => planId === id)
      return {
        id,
        name,
        rule,
        asset: input.register === 'assets' && assetId === input.id ? null : tag,
        nextOn: next?.dueOn ?? null,
        late: !!next && next.dueOn < today,
        orderId: next?.orderId ?? null,
        orderNumber: next?.orderNumber ?? null,
        lastDoneOn: done.find(({ planId }) => planId === id)?.lastDoneOn ?? null,
      }
    }),
    meters: itsMeters,
  }
})

/** The newest reading of each meter, with the one before. */
async function metersOf(db: Reader, itsAssets: SQL | undefined) {
  const rows = await db
    .select({ asset: assets.tag, id: meters.id, name: meters.name, unit: meters.unit })
    .from(meters)
    .innerJoin(assets, eq(assets.id, meters.assetId))
    .where(and(itsAssets, isNull(meters.retiredAt)))
    .orderBy(asc(assets.tag), asc(meters.id))
    .limit(MOST_METERS)
  const newest = await newestReadings(db, rows.map(({ id }) => id), 2) // prettier-ignore
  return rows.flatMap(({ asset, id, name, unit }) => {
    const [last, before] = newest.filter(({ meterId }) => meterId === id)
    return last ? [{ asset, name, unit, value: last.value, at: last.at, before: last.anew ? null : (before?.value ?? null) }] : []
  })
}
