import polylabel from 'polylabel'

/** Metres east and north on the floor's own grid, to the millimetre. */
export type Point = [number, number]
/** Corners in order; the first is not said again at the end. */
export type Ring = Point[]
/** The outline, counterclockwise, then what is cut out of it, clockwise (the right-hand rule of RFC 7946, 3.1.6). */
export type Shape = Ring[]

/** No floor reaches further than this from its nought, in metres. */
export const FARTHEST = 10_000
export const MOST_CORNERS = 1_000

export const toMillimetre = (metres: number): number => Math.round(metres * 1000) / 1000 + 0

/** Square metres, positive when the corners run counterclockwise (the shoelace formula). */
export function signedArea(ring: Ring): number {
  let twice = 0
  ring.forEach(([x, y], index) => {
    const [nextX, nextY] = ring[(index + 1) % ring.length]!
    twice += x * nextY - nextX * y
  })
  return twice / 2
}

/** Floor area in square metres: the outline without what is cut out of it. */
export const areaOf = ([outline, ...holes]: Shape): number => Math.abs(signedArea(outline!)) - holes.reduce((sum, hole) => sum + Math.abs(signedArea(hole)), 0)

/** The same shape with every ring running as the right-hand rule has it. */
export const rightHanded = (shape: Shape): Shape => shape.map((ring, index) => (signedArea(ring) > 0 === (index === 0) ? ring : [...ring].reverse()))

/** The same shape from the corner that is lowest and then leftmost, so that two drawings of one shape read the same. */
export function normalised(shape: Shape): Shape {
  return rightHanded(shape).map((ring) => {
    const first = ring.reduce((best, [x, y], index) => (y < ring[best]![1] || (y === ring[best]![1] && x < ring[best]![0]) ? index : best), 0)
    return [...ring.slice(first), ...ring.slice(0, first)]
  })
}

export const sameShape = (a: Shape, b: Shape): boolean => JSON.stringify(normalised(a)) === JSON.stringify(normalised(b))

/** Whether a point lies inside: by how many edges a ray to the east crosses (even-odd rule). What lies on an edge may be either. */
export const isInside = (point: Point, shape: Shape): boolean => shape.reduce((inside, ring) => inside !== crossesOddly(point, ring), false)

function crossesOddly([x, y]: Point, ring: Ring): boolean {
  return ring.reduce((odd, [ax, ay], index) => {
    const [bx, by] = ring[(index + 1) % ring.length]!
    return ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax ? !odd : odd
  }, false)
}

/** Whether two edges that are no neighbours touch or cross. */
export function crossesItself(ring: Ring): boolean {
  const edges = ring.map((from, index) => ({ from, to: ring[(index + 1) % ring.length]! }))
  return edges.some((one, index) =>
    edges.some((other, at) => at > index + 1 && !(index === 0 && at === edges.length - 1) && touch(one.from, one.to, other.from, other.to)),
  )
}

function touch(a: Point, b: Point, c: Point, d: Point): boolean {
  for (const axis of [0, 1] as const)
    if (Math.max(a[axis], b[axis]) < Math.min(c[axis], d[axis]) || Math.max(c[axis], d[axis]) < Math.min(a[axis], b[axis])) return false
  const side = (p: Point, q: Point, r: Point) => Math.sign((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]))
  return side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) <= 0
}

/** Where a name is read best: the point inside that is farthest from every edge, to a quarter of a metre. */
export function nameSpot(shape: Shape): Point {
  const [x, y] = polylabel(shape.map(closed), 0.25)
  return [x, y]
}

/** A ring as RFC 7946 writes it: its first position again at the end. */
export const closed = (ring: Ring): Ring => [...ring, ring[0]!]

export interface Bounds {
  west: number
  south: number
  east: number
  north: number
}

/** What holds all of these points; null when there are none. */
export function boundsOf(points: readonly Point[]): Bounds | null {
  if (!points.length) return null
  const bounds = { west: Infinity, south: Infinity, east: -Infinity, north: -Infinity }
  for (const [x, y] of points) {
    bounds.west = Math.min(bounds.west, x)
    bounds.east = Math.max(bounds.east, x)
    bounds.south = Math.min(bounds.south, y)
    bounds.north = Math.max(bounds.north, y)
  }
  return bounds
}
