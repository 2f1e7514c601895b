import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import * as contract from '#contract/places'
import type { Labelled } from '#contract/places'
import { refuse } from '#core/kit'
import { codeAddress } from '#core/places'
import { delivery, inThread, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { assets, equipment, parts, places, sites } from '../tables'
import type { Label, LabelJob } from './labels.worker'
import { namesAbove } from './namePlace'

const drawLabels = inThread<LabelJob, Uint8Array>('labels.worker')

interface Asked {
  db: Reader
  who: Asker
  ids: number[]
  /** The address of the application. */
  base: string
}
interface Found {
  labels: Label[]
  /** The site they stand at, by name. */
  heading: string
}
const WRONG = 'Something wrong? Point a camera here.'
const NONE: Found = { labels: [], heading: '' }

async function placeLabels({ db, who, ids, base }: Asked): Promise<Found> {
  const found = await db
    .select({ place: places, site: sites })
    .from(places)
    .innerJoin(sites, eq(sites.id, places.siteId))
    .where(and(inArray(places.id, ids), isNull(places.retiredAt), withinSites(who, places.siteId)))
    .orderBy(asc(places.code))
  if (!found.length) return NONE
  const above = await namesAbove(
    db,
    found.map(({ place }) => place),
  )
  const labels = found.map(({ place: { id, code, name }, site }) => ({
    code,
    name,
    within: above.get(id)!,
    says: WRONG,
    address: codeAddress(base, site.code, { place: code }),
  }))
  return { labels, heading: found[0]!.site.name }
}

async function assetLabels({ db, who, ids, base }: Asked): Promise<Found> {
  const found = await db
    .select({ asset: assets, place: places, site: sites })
    .from(assets)
    .innerJoin(places, eq(places.id, assets.placeId))
    .innerJoin(sites, eq(sites.id, assets.siteId))
    .where(and(inArray(assets.id, ids), isNull(assets.retiredAt), withinSites(who, assets.siteId)))
    .orderBy(asc(assets.tag))
  if (!found.length) return NONE
  const above = await namesAbove(
    db,
    found.map(({ place }) => place),
  )
  const labels = found.map(({ asset: { tag, name }, place, site }) => ({
    code: tag,
    name,
    within: [place.name, above.get(place.id)].filter(Boolean).join(', '),
    says: WRONG,
    address: codeAddress(base, site.code, { place: place.code, asset: tag }),
  }))
  return { labels, heading: found[0]!.site.name }
}

/** Parts serve every site: their labels are for the shelves of whoever prints them. */
async function partLabels({ db, who, ids, base }: Asked): Promise<Found> {
  const [[site], found] = await Promise.all([
    db
      .select()
      .from(sites)
      .where(and(who.homeSiteId === null ? undefined : eq(sites.id, who.homeSiteId), withinSites(who, sites.id)))
      .orderBy(asc(sites.id))
      .limit(1),
    db
      .select()
      .from(parts)
      .where(and(inArray(parts.id, ids), isNull(parts.retiredAt)))
      .orderBy(asc(parts.code)),
  ])
  if (!site) return NONE
  const labels = found.map(({ code, name, unit }) => ({
    code,
    name,
    within: unit,
    says: 'Taking one? Scan it.',
    address: codeAddress(base, site.code, { part: code }),
  }))
  return { labels, heading: site.name }
}

async function equipmentLabels({ db, who, ids, base }: Asked): Promise<Found> {
  const found = await db
    .select({ piece: equipment, site: sites, place: places })
    .from(equipment)
    .innerJoin(sites, eq(sites.id, equipment.siteId))
    .leftJoin(places, eq(places.id, equipment.placeId))
    .where(and(inArray(equipment.id, ids), isNull(equipment.retiredAt), withinSites(who, equipment.siteId)))
    .orderBy(asc(equipment.tag))
  const labels = found.map(({ piece: { tag, name }, site, place }) => ({
    code: tag,
    name,
    within: place ? `Kept at ${place.name}` : '',
    says: 'Taking it along, or bringing it back? Scan it.',
    address: codeAddress(base, site.code, { equipment: tag }),
  }))
  return { labels, heading: found[0]?.site.name ?? '' }
}

const LABELS: Record<Labelled, (asked: Asked) => Promise<Found>> = {
  places: placeLabels,
  assets: assetLabels,
  parts: partLabels,
  equipment: equipmentLabels,
}

export default delivery(contract.printLabels, async ({ db, who, input, service, response }) => {
  const ids = input.ids.split(',').map(Number)
  const { labels, heading } = await LABELS[input.kind]({ db, who, ids, base: service.publicUrl() })
  if (!labels.length) refuse('nothing', 'None of these is there any more. Choose again.', 'ids')
  const pdf = await drawLabels({ size: input.size, heading, labels })
  response.setHeader('Content-Type', 'application/pdf')
  response.setHeader('Content-Disposition', `attachment; filename="labels-${input.kind}-${input.size}.pdf"`)
  response.end(Buffer.from(pdf))
})
