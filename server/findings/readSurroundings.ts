import { and, asc, eq, isNull, like } from 'drizzle-orm'
import * as contract from '#contract/findings'
import type { FloorAround } from '#contract/findings'
import { myVisit } from '#server/field'
import { query } from '#server/kit'
import type { Reader } from '#server/kit'
import { assetPins, assets, places, spaceShapes } from '../tables'

export default query(contract.readSurroundings, async ({ db, who, input }) => {
  const { order } = await myVisit(db, who, input.visitId)
  const [place] = order.placeId ? await db.select({ path: places.path }).from(places).where(eq(places.id, order.placeId)) : []
  return { floors: place ? await floorsAround(db, place.path) : [] }
})

/** The floors of the building a place is in; of the whole site, where it is in none. Three statements, however many there are. */
async function floorsAround(db: Reader, path: string): Promise<FloorAround[]> {
  const ids = path.split('/').filter(Boolean)
  const around = `/${ids.slice(0, 2).join('/')}/`
  const there = and(like(places.path, `${around}%`), isNull(places.retiredAt))
  const [rows, shapes, standing] = [
    await db.select({ id: places.id, code: places.code, name: places.name, kind: places.kind, path: places.path }).from(places).where(there).orderBy(asc(places.code)),
    await db.select({ spaceId: spaceShapes.spaceId, planId: spaceShapes.planId, shape: spaceShapes.shape }).from(spaceShapes).innerJoin(places, eq(places.id, spaceShapes.spaceId)).where(there),
    await db
      .select({
        ...{ id: assets.id, tag: assets.tag, name: assets.name, placeId: assets.placeId },
        pin: { planId: assetPins.planId, east: assetPins.east, north: assetPins.north },
      })
      .from(assets)
      .innerJoin(places, eq(places.id, assets.placeId))
      .leftJoin(assetPins, eq(assetPins.assetId, assets.id))
      .where(and(there, isNull(assets.retiredAt)))
      .orderBy(asc(assets.tag)),
  ] // prettier-ignore
  const kindOf = new Map(rows.map(({ id, kind }) => [id, kind]))
  /** The plan something is on: that of the nearest place around it that is no space. */
  const planOf = (path: string): number | null =>
    path
      .split('/')
      .filter(Boolean)
      .map(Number)
      .reverse()
      .find((id) => kindOf.has(id) && kindOf.get(id) !== 'space') ?? null
  const shapeOf = new Map(shapes.map((one) => [one.spaceId, one]))
  const floors = new Map<number, FloorAround>()
  const floorFor = (planId: number | null): FloorAround | null => {
    const plan = rows.find(({ id }) => id === planId)
    if (!plan) return null
    if (!floors.has(plan.id)) floors.set(plan.id, { id: plan.id, code: plan.code, name: plan.name, spaces: [], assets: [] })
    return floors.get(plan.id)!
  }
  const pathOf = new Map(rows.map((row) => [row.id, row.path]))
  for (const { id, code, name, kind, path } of rows) {
    if (kind !== 'space') continue
    const planId = planOf(path)
    const drawn = shapeOf.get(id)
    floorFor(planId)?.spaces.push({ id, code, name, shape: drawn?.planId === planId ? drawn.shape : null })
  }
  for (const { pin, ...asset } of standing) {
    const planId = planOf(pathOf.get(asset.placeId) ?? '')
    floorFor(planId)?.assets.push({ ...asset, at: pin && pin.planId === planId ? [pin.east!, pin.north!] : null })
  }
  return [...floors.values()].sort((a, b) => a.code.localeCompare(b.code, 'en', { numeric: true }))
}
