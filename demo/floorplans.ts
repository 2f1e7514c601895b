import { normalised, toMillimetre } from '#core/floorplans'
import type { Point, Ring } from '#core/floorplans'
import type { SpaceSpec } from './places'
import type { World } from './world'

/** How much front a room of a kind takes beside others; 1 where it is not said. */
const FRONTS: Record<string, number> = {
  'Tank hall': 2.4,
  'Wet laboratory': 1.4,
  Gallery: 1.8,
  Auditorium: 2.6,
  'Pump hall': 2,
  'Filter hall': 2,
  'Chiller hall': 2.2,
  'Boat workshop': 2.4,
  Library: 2,
  'Tank deck': 2.2,
  Washroom: 0.6,
  Kitchenette: 0.6,
  Store: 0.8,
  'Roof access': 0.5,
  Quarantine: 1.2,
}
/** Corners cut off, as around a tank or a stage. */
const CHAMFERED = new Set(['Tank hall', 'Auditorium', 'Tank deck', 'Quarantine'])
const LENGTHS: Record<string, number> = { TID: 44, LAN: 40, PUM: 26, GAN: 46, KEL: 48, SLI: 42, BRK: 30, HAT: 34 }
const DEPTH = 6.5
const CORRIDOR = 2.4
const CHAMFER = 1.2

/** Every floor drawn: rooms on both sides of a corridor, the grounds as strips between the sea wall and the road. Invented. */
export function makeFloorplans(world: World, spaces: SpaceSpec[]): void {
  const floors = new Map<number, SpaceSpec[]>()
  for (const space of spaces) {
    const parentId = world.rows.places.find((row) => row.id === space.id)!.parentId!
    floors.set(parentId, [...(floors.get(parentId) ?? []), space])
  }
  for (const [planId, rooms] of floors) {
    world.put('floorplans', { placeId: planId, version: 1 })
    const rings = rooms[0]!.building === 'GRD' ? groundsOf(rooms) : floorOf(rooms)
    rooms.forEach((room, index) => world.put('spaceShapes', { spaceId: room.id, planId, shape: normalised([rings[index]!]) }))
    rooms.forEach((room, index) => pinAssets(world, planId, room.id, rings[index]!))
  }
}

/** A corridor of its own is drawn where it lies; the other rooms share its two sides by their fronts. */
function floorOf(rooms: SpaceSpec[]): Ring[] {
  const length = LENGTHS[rooms[0]!.building] ?? 40
  const front = (room: SpaceSpec) => FRONTS[room.kind] ?? 1
  const lining = rooms.filter((room) => room.kind !== 'Corridor')
  const half = lining.reduce((sum, room) => sum + front(room), 0) / 2
  const south: SpaceSpec[] = []
  const north: SpaceSpec[] = []
  let filled = 0
  for (const room of lining) {
    if (filled + front(room) / 2 <= half || !south.length) south.push(room)
    else north.push(room)
    filled += front(room)
  }
  const rings = new Map<number, Ring>()
  for (const [side, bottom] of [
    [south, 0],
    [north, DEPTH + CORRIDOR],
  ] as const) {
    const metres =
      length /
      Math.max(
        1,
        side.reduce((sum, room) => sum + front(room), 0),
      )
    let west = 0
    for (const room of side) {
      const east = west + front(room) * metres
      rings.set(room.id, boxOf(west, bottom, east, bottom + DEPTH, CHAMFERED.has(room.kind) ? CHAMFER : 0))
      west = east
    }
  }
  return rooms.map((room) => rings.get(room.id) ?? boxOf(0, DEPTH, length, DEPTH + CORRIDOR, 0))
}

function boxOf(west: number, south: number, east: number, north: number, cut: number): Ring {
  const corners: Ring = cut
    ? [
        [west + cut, south],
        [east - cut, south],
        [east, south + cut],
        [east, north - cut],
        [east - cut, north],
        [west + cut, north],
        [west, north - cut],
        [west, south + cut],
      ]
    : [
        [west, south],
        [east, south],
        [east, north],
        [west, north],
      ]
  return corners.map(([x, y]): Point => [toMillimetre(x), toMillimetre(y)])
}

/** Open ground is no row of boxes: strips of three, askew as the shore has it. */
function groundsOf(rooms: SpaceSpec[]): Ring[] {
  const [width, depth] = [36, 22]
  return rooms.map((_, index) => {
    const [column, row] = [index % 3, Math.floor(index / 3)]
    const [west, south] = [column * (width + 3), row * (depth + 3)]
    const lean = 2 + ((index * 5) % 4)
    const ring: Ring = [
      [west, south + lean],
      [west + width, south],
      [west + width - lean / 2, south + depth - lean],
      [west + lean / 2, south + depth],
    ]
    return ring.map(([x, y]): Point => [toMillimetre(x), toMillimetre(y)])
  })
}

/** Machines stand along a grid inside their room; one in twelve was not placed yet. */
function pinAssets(world: World, planId: number, spaceId: number, ring: Ring): void {
  const standing = world.rows.assets.filter((row) => row.placeId === spaceId && row.id! % 12 !== 5)
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)]
  const [west, south] = [Math.min(...xs) + 1.2, Math.min(...ys) + 1.1]
  const [wide, deep] = [Math.max(...xs) - 1.2 - west, Math.max(...ys) - 1.1 - south]
  const columns = Math.max(1, Math.min(standing.length, Math.floor(wide / 1.5)))
  const rows = Math.ceil(standing.length / columns)
  standing.forEach((asset, index) => {
    const [column, row] = [index % columns, Math.floor(index / columns)]
    world.put('assetPins', {
      assetId: asset.id!,
      planId,
      east: toMillimetre(west + (columns > 1 ? (column * wide) / (columns - 1) : wide / 2)),
      north: toMillimetre(south + (rows > 1 ? (row * deep) / (rows - 1) : 0)),
      version: 1,
    })
  })
}
