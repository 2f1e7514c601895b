import { and, asc, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/floorplans'
import { counterFieldsOf } from '#core/requests'
import { notFound, query } from '#server/kit'
import { namesAbove } from '#server/places'
import { siteByCode } from '#server/requests'
import { floorplans, places, spaceShapes } from '../tables'
import { assetsOn, mayHavePlan, spacesOn } from './onFloor'

export const listCounterPlans = query(contract.listCounterPlans, async ({ db, input }) => {
  const site = await siteByCode(db, input.site)
  const rows = await db
    .selectDistinct({ id: places.id, path: places.path, code: places.code, name: places.name })
    .from(floorplans)
    .innerJoin(places, eq(places.id, floorplans.placeId))
    .innerJoin(spaceShapes, eq(spaceShapes.planId, floorplans.placeId))
    .where(and(eq(places.siteId, site.id), isNull(places.retiredAt)))
    .orderBy(asc(places.code))
  const within = await namesAbove(db, rows)
  return { rows: rows.map(({ path: _, ...row }) => ({ ...row, within: within.get(row.id)! })) }
})

/** Rooms alone; machines too, where the Counter of the site asks for them. Nothing of the work on them. */
export const readCounterPlan = query(contract.readCounterPlan, async ({ db, input }) => {
  const site = await siteByCode(db, input.site)
  const [place] = await db
    .select()
    .from(places)
    .where(and(eq(places.id, input.id), eq(places.siteId, site.id), isNull(places.retiredAt)))
  if (!place || !mayHavePlan(place.kind)) throw notFound('floor plan')
  const spaces = await spacesOn(db, place.id)
  const withAssets = counterFieldsOf(site.counterFields).asset !== 'not_asked'
  const assets = withAssets
    ? await assetsOn(
        db,
        place.id,
        spaces.map(({ id }) => id),
      )
    : []
  return {
    place: { id: place.id, code: place.code, name: place.name },
    spaces: spaces.flatMap(({ id, code, name, shape }) => (shape ? [{ id, code, name, shape }] : [])),
    assets: assets.flatMap(({ tag, name, at }) => (at ? [{ tag, name, at }] : [])),
  }
})
