import { travelMinutes } from './tree'

/** Degrees of WGS 84. */
export interface Position {
  lat: number
  lon: number
}
/** What is known of the ways between places, by their ids. */
export interface WayFacts {
  /** Where sites, buildings and grounds stand. */
  at: readonly (readonly [placeId: number, lat: number, lon: number])[]
  /** Where spaces lie on the plan of their floor, in metres east and north. */
  on: readonly (readonly [spaceId: number, east: number, north: number])[]
  /** Minutes from one place to another, as somebody said or stints have shown; they hold for what lies within as well. */
  said: readonly (readonly [fromId: number, toId: number, minutes: number])[]
}
/** Whole minutes from one place to another, each by its path in the tree; nought where either is not known. */
export type Way = (from: string | null, to: string | null) => number

/** Nobody walks as a crow flies: corridors, corners and crossings make it a third longer, roads two fifths. Common practice, no source. */
const DETOUR = { foot: 1.3, road: 1.4 }
/** People walk 1.2 metres a second (the usual value for pedestrians at crossings, from memory), and drive 40 km an hour on average (our own choice). */
const METRES_A_MINUTE = { foot: 72, road: 667 }
/** To get out of one building and into another; to get to a car and from it. Our own choice, no source. */
const DOORS = 2
const PARKING = 6

/**
 * Ways by what is known of them: what was said of the two places or of what they lie in, the closest first; on the plan of
 * one floor by the metres between them; between buildings and sites by where these stand; otherwise by the tree.
 */
export function waysOf({ at, on, said }: WayFacts): Way {
  const stands = new Map(at.map(([id, lat, lon]) => [id, { lat, lon }]))
  const lies = new Map(on.map(([id, east, north]) => [id, [east, north] as const]))
  const known = new Map(said.map(([from, to, minutes]) => [`${from} ${to}`, minutes]))
  const position = (steps: readonly number[], from: number): Position | undefined => {
    for (let step = steps.length - 1; step >= from; step--) if (stands.has(steps[step]!)) return stands.get(steps[step]!)
  }
  const reckon = (fromPath: string, toPath: string): number => {
    const [a, b] = [stepsOf(fromPath), stepsOf(toPath)]
    const word = known.size ? closest(a, b, known) : undefined
    if (word !== undefined) return word
    const estimate = travelMinutes(fromPath, toPath)
    const shared = sharedOf(a, b)
    // One lies within the other, or both in the same space.
    if (shared === a.length || shared === b.length) return estimate
    const [one, other] = [a[shared]!, b[shared]!]
    if (shared >= 2) {
      const [here, there] = [lies.get(one), lies.get(other)]
      // On the plan of the floor that holds both.
      return here && there && shared >= 3 ? walked(Math.hypot(here[0] - there[0], here[1] - there[1]), 0) : estimate
    }
    const [here, there] = [position(a, shared), position(b, shared)]
    if (!here || !there) return estimate
    const metres = metresBetween(here, there)
    return shared === 0 ? Math.ceil((metres * DETOUR.road) / METRES_A_MINUTE.road) + PARKING : walked(metres, DOORS)
  }
  /** The same few ways are asked for again and again. */
  const reckoned = new Map<string, number>()
  return (from, to) => {
    if (from === null || to === null || from === to) return 0
    const key = `${from} ${to}`
    const minutes = reckoned.get(key) ?? reckon(from, to)
    reckoned.set(key, minutes)
    return minutes
  }
}

const walked = (metres: number, more: number) => Math.max(1, Math.ceil((metres * DETOUR.foot) / METRES_A_MINUTE.foot)) + more
const stepsOf = (path: string) => path.split('/').filter(Boolean).map(Number)
function sharedOf(a: readonly number[], b: readonly number[]): number {
  const differs = a.findIndex((step, index) => step !== b[index])
  return differs === -1 ? a.length : differs
}

/** What was said of two places, or of the closest around them: what is said of two rooms goes before what is said of their buildings. */
function closest(a: readonly number[], b: readonly number[], known: ReadonlyMap<string, number>): number | undefined {
  for (let depth = a.length + b.length; depth >= 2; depth--)
    for (let up = Math.min(a.length, depth - 1); up >= 1 && depth - up <= b.length; up--) {
      const minutes = known.get(`${a[up - 1]!} ${b[depth - up - 1]!}`)
      if (minutes !== undefined) return minutes
    }
  return undefined
}

const EARTH_METRES = 6_371_008.8
/** Along the great circle, on a sphere of the mean radius (IUGG): the haversine formula. */
export function metresBetween(a: Position, b: Position): number {
  const rad = (degrees: number) => (degrees * Math.PI) / 180
  const half = (x: number) => Math.sin(x / 2) ** 2
  const h = half(rad(b.lat - a.lat)) + Math.cos(rad(a.lat)) * Math.cos(rad(b.lat)) * half(rad(b.lon - a.lon))
  return 2 * EARTH_METRES * Math.asin(Math.min(1, Math.sqrt(h)))
}

/** "53.2707, -9.0568" as people copy it from a map; null when it is none. */
export function readPosition(text: string): Position | null {
  const [, lat, lon] = /^\s*(-?\d{1,2}(?:\.\d+)?)\s*[,;\s]\s*(-?\d{1,3}(?:\.\d+)?)\s*$/.exec(text) ?? []
  const position = { lat: Number(lat), lon: Number(lon) }
  return lat !== undefined && Math.abs(position.lat) <= 90 && Math.abs(position.lon) <= 180 ? position : null
}

/** The middle of a closed ring, by its area (metres); that of its corners where it has none. */
export function middleOf(ring: readonly (readonly [number, number])[]): [number, number] {
  let [area, east, north] = [0, 0, 0]
  for (const [index, [x, y]] of ring.entries()) {
    const [nextX, nextY] = ring[(index + 1) % ring.length]!
    const cross = x * nextY - nextX * y
    area += cross
    east += (x + nextX) * cross
    north += (y + nextY) * cross
  }
  if (Math.abs(area) > 1e-9) return [east / (3 * area), north / (3 * area)]
  return [ring.reduce((sum, [x]) => sum + x, 0) / Math.max(1, ring.length), ring.reduce((sum, [, y]) => sum + y, 0) / Math.max(1, ring.length)]
}

/** A way somebody logged: from where they worked before to where they went. */
export interface WaySeen {
  fromPath: string
  toPath: string
  minutes: number
}
/** So many times a way has to be seen before it counts; our own choice, no source. */
export const LEAST_SEEN = 5

/**
 * What logged ways show: for buildings, or sites where these differ, the median of at least five; within a building for its
 * floors. Both directions are learned apart.
 */
export function learnedWays(seen: readonly WaySeen[]): { fromId: number; toId: number; minutes: number; seen: number }[] {
  const by = new Map<string, { fromId: number; toId: number; all: number[] }>()
  for (const { fromPath, toPath, minutes } of seen) {
    const [a, b] = [stepsOf(fromPath), stepsOf(toPath)]
    const shared = sharedOf(a, b)
    const [fromId, toId] = [a[shared], b[shared]]
    // Within one floor the plan knows better than a clock that counts minutes.
    if (fromId === undefined || toId === undefined || shared > 2) continue
    const key = `${fromId} ${toId}`
    const known = by.get(key) ?? { fromId, toId, all: [] }
    known.all.push(minutes)
    by.set(key, known)
  }
  return [...by.values()]
    .filter(({ all }) => all.length >= LEAST_SEEN)
    .map(({ fromId, toId, all }) => ({ fromId, toId, minutes: Math.max(1, Math.round(median(all))), seen: all.length }))
}

function median(all: readonly number[]): number {
  const sorted = [...all].sort((a, b) => a - b)
  const middle = Math.floor(sorted.length / 2)
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}
