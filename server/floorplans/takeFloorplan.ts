import { and, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/floorplans'
import type { PlanReport } from '#contract/floorplans'
import type { PlanRow } from '#core/floorplans'
import { Refusal, refuse } from '#core/kit'
import { contentOf, inThread, preparedCommand } from '#server/kit'
import type { Reader, Tx } from '#server/kit'
import { placeKeeper } from '#server/places'
import { insertRecord } from '#server/registers'
import { assetPins, assets, places, spaceShapes } from '../tables'
import { lockPlan, planPlace, raisePlan } from './floorplan'
import type { PlanPlace } from './floorplan'
import { assetsOn, spacesOn } from './onFloor'
import type { PlanJob } from './readPlanFile.worker'
import type { KnownPlan, ReadPlan } from '#core/floorplans'

const readFile = inThread<PlanJob, ReadPlan | { wrong: string }>('readPlanFile.worker')

/** Looking and taking are the same call: what is taken is what would be shown at that moment. */
export default preparedCommand(
  contract.takeFloorplan,
  ({ request }) => (request.file ? contentOf(request.file) : Promise.resolve(Buffer.alloc(0))),
  async (context): Promise<PlanReport> => {
    const { tx, who, input, ready: content, tell } = context
    if (!content.length) refuse('file_missing', 'Choose a GeoJSON file that is not empty.', 'file')
    const { place, plan } = input.take ? await lockPlan(tx, who, input.id) : { place: await planPlace(tx, who, input.id), plan: null }
    const read = await readFile({ content: new Uint8Array(content), known: await knownOn(tx, place) })
    if ('wrong' in read) refuse('plan_file', read.wrong, 'file')
    const rows = read.rows
    if (plan) {
      const made = input.make ? await makeSpaces(context, place, rows) : 0
      const drawn = rows.filter(({ standing, id }) => ['new', 'drawn', 'changed'].includes(standing) && id !== null)
      for (const row of drawn) await draw(tx, plan.placeId, row)
      if (drawn.length) {
        await raisePlan(tx, plan)
        await tell({
          kind: 'floorplan.take',
          siteId: place.siteId,
          register: 'places',
          recordId: place.id,
          details: { file: input.name ?? '', drawn: drawn.length, made },
        })
      }
    }
    const counts = { new: 0, drawn: 0, changed: 0, same: 0, bad: 0 }
    for (const { standing } of rows) counts[standing]++
    return { rows: rows.map(({ shape: _, at: __, ...row }) => row), counts, left: read.left, taken: plan !== null }
  },
  ({ db, who, input }) => planPlace(db, who, input.id),
)

async function knownOn(db: Reader, place: PlanPlace): Promise<KnownPlan> {
  const spaces = await spacesOn(db, place.id)
  const standing = await assetsOn(
    db,
    place.id,
    spaces.map(({ id }) => id),
  )
  const here = { codes: new Set(spaces.map(({ id }) => id)), tags: new Set(standing.map(({ id }) => id)) }
  const [codes, tags] = await Promise.all([
    db.select({ id: places.id, code: places.code }).from(places).where(eq(places.siteId, place.siteId)),
    db
      .select({ id: assets.id, tag: assets.tag })
      .from(assets)
      .where(and(eq(assets.siteId, place.siteId), isNull(assets.retiredAt))),
  ])
  return {
    spaces,
    assets: standing.map(({ id, tag, name, at }) => ({ id, tag, name, at })),
    elsewhere: {
      codes: codes.filter(({ id }) => !here.codes.has(id)).map(({ code }) => code.toLowerCase()),
      tags: tags.filter(({ id }) => !here.tags.has(id)).map(({ tag }) => tag.toLowerCase()),
    },
  }
}

/** Spaces that are not in the register yet are entered there, as if by hand. @throws Refusal naming the feature */
async function makeSpaces(context: Parameters<typeof insertRecord>[0], place: PlanPlace, rows: PlanRow[]): Promise<number> {
  const fresh = rows.filter(({ standing }) => standing === 'new')
  for (const row of fresh) {
    const said = { siteId: place.siteId, code: row.code, name: row.name, kind: 'space', parentId: place.id }
    try {
      row.id = (await insertRecord(context, placeKeeper, said)).id
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      refuse('row', `Feature ${row.feature}, ${row.code}: ${error.reasons.map(({ sentence }) => sentence).join(' ')} Nothing was taken.`, 'file')
    }
  }
  return fresh.length
}

async function draw(tx: Tx, planId: number, row: PlanRow): Promise<void> {
  if (row.what === 'space')
    await tx
      .insert(spaceShapes)
      .values({ spaceId: row.id!, planId, shape: row.shape! })
      .onDuplicateKeyUpdate({ set: { planId, shape: row.shape! } })
  else {
    const [pin] = await tx.select({ version: assetPins.version }).from(assetPins).where(eq(assetPins.assetId, row.id!)).for('update')
    const stands = { planId, east: row.at![0], north: row.at![1] }
    await tx
      .insert(assetPins)
      .values({ assetId: row.id!, ...stands, version: 1 })
      .onDuplicateKeyUpdate({ set: { ...stands, version: (pin?.version ?? 0) + 1 } })
  }
}
