import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { Shape } from '#core/floorplans'
import type { Reader } from '#server/kit'
import { assetPins, assets, places, spaceShapes } from '../tables'

/** What may have spaces of its own, and so a plan. */
export const PLAN_KINDS = ['floor', 'building', 'grounds', 'site'] as const
export const mayHavePlan = (kind: string): boolean => (PLAN_KINDS as readonly string[]).includes(kind)

export interface SpaceOnFloor {
  id: number
  code: string
  name: string
  shape: Shape | null
}

/** The spaces of a floor, those within other spaces too, each as it is drawn there. */
export async function spacesOn(db: Reader, planId: number): Promise<SpaceOnFloor[]> {
  const inside = sql`(with recursive inside as (
    select id from place where parent_id = ${planId} and kind = 'space' and retired_at is null
    union all
    select below.id from place below join inside on below.parent_id = inside.id where below.kind = 'space' and below.retired_at is null
  ) select id from inside)`
  return db
    .select({ id: places.id, code: places.code, name: places.name, shape: spaceShapes.shape })
    .from(places)
    .leftJoin(spaceShapes, and(eq(spaceShapes.spaceId, places.id), eq(spaceShapes.planId, planId)))
    .where(sql`${places.id} in ${inside}`)
    .orderBy(asc(places.code))
}

export interface AssetOnFloor {
  id: number
  tag: string
  name: string
  placeId: number
  at: [number, number] | null
  pinVersion: number
}

/** What stands in these places, each with its pin on this plan. */
export async function assetsOn(db: Reader, planId: number, placeIds: number[]): Promise<AssetOnFloor[]> {
  if (!placeIds.length) return []
  const rows = await db
    .select({
      id: assets.id,
      tag: assets.tag,
      name: assets.name,
      placeId: assets.placeId,
      pinPlan: assetPins.planId,
      east: assetPins.east,
      north: assetPins.north,
      pinVersion: assetPins.version,
    })
    .from(assets)
    .leftJoin(assetPins, eq(assetPins.assetId, assets.id))
    .where(and(inArray(assets.placeId, placeIds), isNull(assets.retiredAt)))
    .orderBy(asc(assets.tag))
  return rows.map(({ pinPlan, east, north, pinVersion, ...asset }) => ({
    ...asset,
    at: pinPlan === planId && east !== null && north !== null ? [east, north] : null,
    pinVersion: pinVersion ?? 0,
  }))
}
