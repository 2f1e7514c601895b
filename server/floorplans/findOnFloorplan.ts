import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/floorplans'
import { maySee, notFound, query } from '#server/kit'
import { placesOn } from '#server/places'
import { assetPins, assets, places, spaceShapes } from '../tables'
import { mayHavePlan } from './onFloor'

/** The plan of the nearest floor, grounds or building above; itself where that is what it is. */
export default query(contract.findOnFloorplan, async ({ db, who, input }) => {
  const [found] =
    input.kind === 'places'
      ? await db.select({ siteId: places.siteId, path: places.path }).from(places).where(eq(places.id, input.id))
      : await db
          .select({ siteId: assets.siteId, path: places.path })
          .from(assets)
          .innerJoin(places, eq(places.id, assets.placeId))
          .where(eq(assets.id, input.id))
  if (!found || !maySee(who, found.siteId)) throw notFound(input.kind === 'places' ? 'place' : 'asset')
  const planId = (await placesOn(db, found.path)).findLast(({ kind }) => mayHavePlan(kind))?.id ?? null
  if (planId === null) return { planId, drawn: false }
  const [drawn] =
    input.kind === 'assets'
      ? await db
          .select({ east: assetPins.east })
          .from(assetPins)
          .where(and(eq(assetPins.assetId, input.id), eq(assetPins.planId, planId)))
      : await db
          .select({ east: spaceShapes.spaceId })
          .from(spaceShapes)
          .where(planId === input.id ? eq(spaceShapes.planId, planId) : and(eq(spaceShapes.spaceId, input.id), eq(spaceShapes.planId, planId)))
          .limit(1)
  return { planId, drawn: (drawn?.east ?? null) !== null }
})
