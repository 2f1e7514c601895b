import { cleanText, counted } from '#core/kit'
import { closed, crossesItself, FARTHEST, isInside, MOST_CORNERS, normalised, sameShape, signedArea, toMillimetre } from './shapes'
import type { Point, Ring, Shape } from './shapes'

/** What is known of a floor while a file is held against it. */
export interface KnownPlan {
  spaces: { id: number; code: string; name: string; shape: Shape | null }[]
  assets: { id: number; tag: string; name: string; at: Point | null }[]
  /** Codes and tags of the site that are not on this floor, in lower case. */
  elsewhere: { codes: string[]; tags: string[] }
}

/** New: it is not in the register yet. Drawn: it is, and was not on the plan. */
export type Standing = 'new' | 'drawn' | 'changed' | 'same' | 'bad'

export interface PlanRow {
  /** Which feature of the file, from 1. */
  feature: number
  what: 'space' | 'asset' | null
  /** Of the space or asset; null while it is new. */
  id: number | null
  code: string
  name: string
  standing: Standing
  sentences: string[]
  shape: Shape | null
  at: Point | null
}

export interface ReadPlan {
  rows: PlanRow[]
  /** How many are drawn now and are not in the file: they stay. */
  left: number
}

export const MOST_FEATURES = 5_000

/** A feature of GeoJSON as we write it. */
export interface PlanFeature {
  type: 'Feature'
  properties: Record<string, string>
  geometry: { type: 'Polygon'; coordinates: Point[][] } | { type: 'Point'; coordinates: Point }
}
export interface PlanGeoJson {
  type: 'FeatureCollection'
  /** West, south, east, north, as RFC 7946 (5) has it; not there when nothing is drawn. */
  bbox?: [number, number, number, number]
  /** Ours: the positions are metres on the floor's own grid, not degrees (RFC 7946, 4, by prior arrangement). */
  units: 'metres'
  floor: string
  features: PlanFeature[]
}

/** The plan of a floor as GeoJSON (RFC 7946): spaces as polygons, assets as points. */
export function planGeoJson(floor: string, { spaces, assets }: Pick<KnownPlan, 'spaces' | 'assets'>): PlanGeoJson {
  const features = [
    ...spaces.flatMap(({ code, name, shape }): PlanFeature[] =>
      shape ? [{ type: 'Feature', properties: { kind: 'space', code, name }, geometry: { type: 'Polygon', coordinates: normalised(shape).map(closed) } }] : [],
    ),
    ...assets.flatMap(({ tag, name, at }): PlanFeature[] =>
      at ? [{ type: 'Feature', properties: { kind: 'asset', tag, name }, geometry: { type: 'Point', coordinates: at } }] : [],
    ),
  ]
  const points = [...spaces.flatMap(({ shape }) => shape?.flat() ?? []), ...assets.flatMap(({ at }) => (at ? [at] : []))]
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)]
  const least = (all: number[]) => all.reduce((a, b) => Math.min(a, b))
  const most = (all: number[]) => all.reduce((a, b) => Math.max(a, b))
  return {
    type: 'FeatureCollection',
    ...(points.length ? { bbox: [least(xs), least(ys), most(xs), most(ys)] as [number, number, number, number] } : {}),
    units: 'metres',
    floor,
    features,
  }
}

/**
 * Reads a plan from GeoJSON (RFC 7946) in local metres and holds it against what is there. Rings may run either
 * way; they are turned as the right-hand rule has it. @returns the rows, or a sentence when it cannot be read at all
 */
export function readPlanFile(text: string, known: KnownPlan): ReadPlan | { wrong: string } {
  let file: unknown
  try {
    file = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch {
    return { wrong: 'The file is no JSON. Choose a GeoJSON file.' }
  }
  const features = featuresOf(file)
  if (!features) return { wrong: 'The file is no GeoJSON with features (RFC 7946): it has to be a FeatureCollection.' }
  if (!features.length) return { wrong: 'There is no feature in the file.' }
  if (features.length > MOST_FEATURES) return { wrong: `The file has more than ${MOST_FEATURES} features. Cut it into floors.` }
  if (looksLikeDegrees(features)) return { wrong: 'The positions are degrees on the earth. A plan is in metres from a corner of the floor; project it first.' }
  const seen = new Map<string, number>()
  const rows = features.map((feature, index) => readFeature(feature, index + 1, known, seen))
  const inFile = new Set(rows.flatMap(({ what, id, standing }) => (id !== null && standing !== 'bad' ? [`${what} ${id}`] : [])))
  const drawn = [
    ...known.spaces.filter(({ shape }) => shape).map(({ id }) => `space ${id}`),
    ...known.assets.filter(({ at }) => at).map(({ id }) => `asset ${id}`),
  ]
  return { rows, left: drawn.filter((one) => !inFile.has(one)).length }
}

type Loose = Record<string, unknown>
const isObject = (thing: unknown): thing is Loose => typeof thing === 'object' && thing !== null && !Array.isArray(thing)

function featuresOf(file: unknown): unknown[] | null {
  if (!isObject(file)) return null
  if (file.type === 'FeatureCollection' && Array.isArray(file.features)) return file.features
  return file.type === 'Feature' ? [file] : null
}

/** A building is more than a few metres long: a file whose positions differ by less than a twentieth, far from nought, is in degrees. */
function looksLikeDegrees(features: unknown[]): boolean {
  const points: number[][] = []
  const walk = (thing: unknown): void => {
    if (!Array.isArray(thing)) return
    if (typeof thing[0] === 'number') points.push(thing as number[])
    else thing.forEach(walk)
  }
  for (const feature of features) if (isObject(feature) && isObject(feature.geometry)) walk(feature.geometry.coordinates)
  if (points.length < 3) return false
  const span = (axis: 0 | 1) => {
    const all = points.map((point) => point[axis]!).filter(Number.isFinite)
    return all.reduce((a, b) => Math.max(a, b), -Infinity) - all.reduce((a, b) => Math.min(a, b), Infinity)
  }
  return span(0) < 0.05 && span(1) < 0.05 && points.every(([x, y]) => Math.abs(x!) <= 180 && Math.abs(y!) <= 90)
}

function readFeature(feature: unknown, number: number, known: KnownPlan, seen: Map<string, number>): PlanRow {
  const bad = (sentence: string, about: Partial<PlanRow> = {}): PlanRow => ({
    feature: number,
    what: null,
    id: null,
    code: '',
    name: '',
    standing: 'bad',
    shape: null,
    at: null,
    ...about,
    sentences: [sentence],
  })
  if (!isObject(feature) || feature.type !== 'Feature') return bad('It is no Feature.')
  const said = isObject(feature.properties) ? feature.properties : {}
  const word = (...names: string[]) => {
    const found = Object.entries(said).find(([name, value]) => names.includes(name.toLowerCase()) && (typeof value === 'string' || typeof value === 'number'))
    return found ? cleanText(String(found[1])).replace(/\s+/g, ' ').trim() : ''
  }
  const geometry = isObject(feature.geometry) ? onePolygon(feature.geometry) : null
  const name = word('name').slice(0, 120)
  if (geometry?.type === 'Point') {
    const tag = word('tag', 'code')
    const about = { what: 'asset' as const, code: tag.slice(0, 32), name }
    if (!tag) return bad('It does not say which asset it is: "tag" is missing among its properties.', about)
    const at = pointOf(geometry.coordinates)
    if (!at) return bad(positionSays, about)
    const asset = known.assets.find((one) => one.tag.toLowerCase() === tag.toLowerCase())
    if (!asset)
      return bad(
        known.elsewhere.tags.includes(tag.toLowerCase())
          ? `${tag} does not stand on this floor. Its Portrait says where it is.`
          : `There is no asset with the tag ${tag}. Enter it first.`,
        about,
      )
    const twice = again(seen, `asset ${asset.id}`, number)
    if (twice) return bad(twice, about)
    const standing = !asset.at ? 'drawn' : asset.at[0] === at[0] && asset.at[1] === at[1] ? 'same' : 'changed'
    return { feature: number, what: 'asset', id: asset.id, code: asset.tag, name: asset.name, standing, sentences: [], shape: null, at }
  }
  if (geometry?.type !== 'Polygon') {
    if (geometry?.type === 'MultiPolygon')
      return bad('It lies in several pieces. A space is one; draw each as a space of its own.', { what: 'space', code: word('code') })
    return bad('It is neither a Polygon (a space) nor a Point (an asset).')
  }
  const code = word('code')
  const about = { what: 'space' as const, code: code.slice(0, 32), name }
  if (!code) return bad('It does not say which space it is: "code" is missing among its properties.', about)
  if (code.length > 32) return bad('Its code is longer than 32 signs.', about)
  const { shape, sentence } = shapeOf(geometry.coordinates)
  if (!shape) return bad(sentence, about)
  const space = known.spaces.find((one) => one.code.toLowerCase() === code.toLowerCase())
  if (!space && known.elsewhere.codes.includes(code.toLowerCase())) return bad(`${code} is not a space of this floor. Its Portrait says where it is.`, about)
  const twice = again(seen, `space ${(space?.code ?? code).toLowerCase()}`, number)
  if (twice) return bad(twice, about)
  if (!space) return { feature: number, what: 'space', id: null, code, name: name || code, standing: 'new', sentences: [], shape, at: null }
  const standing = !space.shape ? 'drawn' : sameShape(space.shape, shape) ? 'same' : 'changed'
  return { feature: number, what: 'space', id: space.id, code: space.code, name: space.name, standing, sentences: [], shape, at: null }
}

/** Of several pieces with one alone, that one. */
function onePolygon(geometry: Loose): Loose {
  const pieces = geometry.type === 'MultiPolygon' && Array.isArray(geometry.coordinates) ? geometry.coordinates : []
  return pieces.length === 1 ? { type: 'Polygon', coordinates: pieces[0] as unknown } : geometry
}

function again(seen: Map<string, number>, key: string, number: number): string | null {
  const before = seen.get(key)
  if (before) return `Feature ${before} is the same one. Keep one of them.`
  seen.set(key, number)
  return null
}

const positionSays = `A position is not two numbers of metres, within ${FARTHEST} of nought.`

function pointOf(position: unknown): Point | null {
  if (!Array.isArray(position) || position.length < 2) return null
  const [x, y] = position as unknown[]
  if (typeof x !== 'number' || typeof y !== 'number' || !Number.isFinite(x) || !Number.isFinite(y)) return null
  return Math.abs(x) <= FARTHEST && Math.abs(y) <= FARTHEST ? [toMillimetre(x), toMillimetre(y)] : null
}

function shapeOf(coordinates: unknown): { shape: Shape; sentence?: undefined } | { shape: null; sentence: string } {
  if (!Array.isArray(coordinates) || !coordinates.length) return { shape: null, sentence: 'It has no ring.' }
  const shape: Shape = []
  for (const [index, drawn] of coordinates.entries()) {
    const which = index === 0 ? 'Its outline' : `What is cut out of it (ring ${index + 1})`
    const read = ringOf(drawn)
    if (typeof read === 'string') return { shape: null, sentence: `${which} ${read}` }
    shape.push(read)
  }
  const [outline, ...holes] = shape
  if (holes.some((hole) => hole.some((corner) => !isInside(corner, [outline!]) && !onRing(corner, outline!))))
    return { shape: null, sentence: 'What is cut out of it lies outside its outline.' }
  return { shape: normalised(shape) }
}

const onRing = (corner: Point, ring: Ring) => ring.some(([x, y]) => x === corner[0] && y === corner[1])

function ringOf(drawn: unknown): Ring | string {
  if (!Array.isArray(drawn) || drawn.length < 4) return 'has fewer than the four positions of a ring (RFC 7946, 3.1.6).'
  const points = drawn.map(pointOf)
  if (points.some((point) => point === null)) return `cannot be read. ${positionSays}`
  const corners = points as Point[]
  const [first, last] = [corners[0]!, corners.at(-1)!]
  if (first[0] !== last[0] || first[1] !== last[1]) return 'is not closed: its last position has to be its first (RFC 7946, 3.1.6).'
  const ring = corners.slice(0, -1).filter(([x, y], index, all) => index === 0 || x !== all[index - 1]![0] || y !== all[index - 1]![1])
  if (ring.length > MOST_CORNERS) return `has more than ${counted(MOST_CORNERS, 'corner')}. Draw it simpler.`
  if (crossesItself(ring)) return 'crosses itself.'
  return ring.length < 3 || signedArea(ring) === 0 ? 'holds no area.' : ring
}
