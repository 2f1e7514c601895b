import { and, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { Floorplan, PlanPicture } from '#contract/floorplans'
import { Refusal } from '#core/kit'
import { OPEN_STATES } from '#core/orders'
import { canAt, conflict, maySee, notAllowed, notFound } from '#server/kit'
import type { Asker, Reader, Tx } from '#server/kit'
import { namesAbove } from '#server/places'
import { isLate } from '#server/registers'
import { attachments, floorplans, orders, places } from '../tables'
import { assetsOn, mayHavePlan, spacesOn } from './onFloor'

export type PlanPlace = typeof places.$inferSelect

/** The place a plan is of. @throws ProblemReply 404 when there is none, or it is not theirs to see */
export async function planPlace(db: Reader, who: Asker, id: number): Promise<PlanPlace> {
  const [place] = await db.select().from(places).where(eq(places.id, id))
  if (!place || !mayHavePlan(place.kind) || !maySee(who, place.siteId)) throw notFound('floor plan')
  return place
}

/** The plan as it is drawn, with the work that is open on everything. Six statements at most. */
export async function floorplanOf(db: Reader, who: Asker, place: PlanPlace, now: Date): Promise<Floorplan> {
  const [spaces, [row], within] = await Promise.all([
    spacesOn(db, place.id),
    db
      .select({ plan: floorplans, name: attachments.name, pixelsWide: attachments.width, pixelsHigh: attachments.height })
      .from(floorplans)
      .leftJoin(attachments, eq(attachments.id, floorplans.pictureId))
      .where(eq(floorplans.placeId, place.id)),
    namesAbove(db, [place]),
  ])
  const assets = await assetsOn(
    db,
    place.id,
    spaces.map(({ id }) => id),
  )
  const [inSpaces, onAssets] = await Promise.all([openBy(db, now, 'placeId', spaces), openBy(db, now, 'assetId', assets)])
  const { id, siteId, code, name, kind } = place
  return {
    place: { id, siteId, code, name, kind, within: within.get(id)! },
    version: row?.plan.version ?? 0,
    whyNot: !canAt(who, 'registers.edit', siteId)
      ? 'Your role does not include changing floor plans.'
      : place.retiredAt
        ? 'It is retired. Take it into use again to change its plan.'
        : null,
    picture: row ? pictureOf(row) : null,
    spaces: spaces.map((space) => ({ ...space, ...(inSpaces.get(space.id) ?? NOTHING) })),
    assets: assets.map((asset) => ({ ...asset, ...(onAssets.get(asset.id) ?? NOTHING) })),
  }
}

const NOTHING = { openOrders: 0, lateOrders: 0 }

function pictureOf({
  plan,
  name,
  pixelsWide,
  pixelsHigh,
}: {
  plan: typeof floorplans.$inferSelect
  name: string | null
  pixelsWide: number | null
  pixelsHigh: number | null
}): PlanPicture | null {
  if (plan.pictureId === null) return null
  const width = plan.pictureWidth!
  return {
    fileId: plan.pictureId,
    name: name!,
    left: plan.pictureLeft!,
    bottom: plan.pictureBottom!,
    width,
    height: (width * pixelsHigh!) / pixelsWide!,
    strength: plan.pictureStrength!,
  }
}

async function openBy(db: Reader, now: Date, by: 'placeId' | 'assetId', of: { id: number }[]): Promise<Map<number, typeof NOTHING>> {
  if (!of.length) return new Map()
  const column = orders[by]
  const rows = await db
    .select({ id: column, open: sql<string>`count(*)`, late: sql<string>`coalesce(sum(${isLate(now)}), 0)` })
    .from(orders)
    .where(
      and(
        inArray(
          column,
          of.map(({ id }) => id),
        ),
        inArray(orders.state, [...OPEN_STATES]),
        isNull(orders.discardedAt),
      ),
    )
    .groupBy(column)
  return new Map(rows.map(({ id, open, late }) => [id!, { openOrders: Number(open), lateOrders: Number(late) }]))
}

/** The plan held for a change, begun when there was none. @throws ProblemReply, Refusal when it is not theirs to change */
export async function lockPlan(tx: Tx, who: Asker, id: number): Promise<{ place: PlanPlace; plan: typeof floorplans.$inferSelect }> {
  const place = await planPlace(tx, who, id)
  if (!canAt(who, 'registers.edit', place.siteId)) throw notAllowed()
  if (place.retiredAt) throw new Refusal([{ code: 'retired', sentence: 'It is retired. Take it into use again to change its plan.' }])
  await tx.insert(floorplans).ignore().values({ placeId: id, version: 0 })
  const [plan] = await tx.select().from(floorplans).where(eq(floorplans.placeId, id)).for('update')
  return { place, plan: plan! }
}

/** The same, as it was seen. @throws ProblemReply 409 when somebody changed it meanwhile */
export async function lockPlanAt(tx: Tx, who: Asker, { id, version }: { id: number; version: number }) {
  const held = await lockPlan(tx, who, id)
  if (held.plan.version !== version) throw conflict(held.plan.version, [])
  return held
}

export const raisePlan = (tx: Tx, plan: typeof floorplans.$inferSelect, changed: Partial<typeof floorplans.$inferInsert> = {}) =>
  tx
    .update(floorplans)
    .set({ ...changed, version: plan.version + 1 })
    .where(eq(floorplans.placeId, plan.placeId))
