import { and, asc, countDistinct, eq, inArray, isNull } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/floorplans'
import { query, withinSites } from '#server/kit'
import { namesAbove } from '#server/places'
import { places, spaceShapes } from '../tables'
import { PLAN_KINDS } from './onFloor'

/** Whatever has spaces directly in it, with how many are drawn. */
export default query(contract.listFloorplans, async ({ db, who }) => {
  const space = alias(places, 'space')
  const rows = await db
    .select({
      id: places.id,
      path: places.path,
      code: places.code,
      name: places.name,
      spaces: countDistinct(space.id),
      drawn: countDistinct(spaceShapes.spaceId),
    })
    .from(places)
    .innerJoin(space, and(eq(space.parentId, places.id), eq(space.kind, 'space'), isNull(space.retiredAt)))
    .leftJoin(spaceShapes, and(eq(spaceShapes.spaceId, space.id), eq(spaceShapes.planId, places.id)))
    .where(and(inArray(places.kind, [...PLAN_KINDS]), isNull(places.retiredAt), withinSites(who, places.siteId)))
    .groupBy(places.id)
    .orderBy(asc(places.siteId), asc(places.code))
  const within = await namesAbove(db, rows)
  return { rows: rows.map(({ path: _, ...row }) => ({ ...row, within: within.get(row.id)! })) }
})
