import { check } from '@placemarkio/check-geojson'
import fc from 'fast-check'
import {
  areaOf,
  boundsOf,
  crossesItself,
  isInside,
  nameSpot,
  normalised,
  planGeoJson,
  readPlanFile,
  rightHanded,
  sameShape,
  signedArea,
  toMillimetre,
} from '#core/floorplans'
import type { KnownPlan, PlanRow, Point, Ring, Shape } from '#core/floorplans'

const box = (west: number, south: number, wide: number, deep: number): Ring => [
  [west, south],
  [west + wide, south],
  [west + wide, south + deep],
  [west, south + deep],
]
const nothing: KnownPlan = { spaces: [], assets: [], elsewhere: { codes: [], tags: [] } }
const rowsOf = (text: string, known: KnownPlan = nothing): PlanRow[] => {
  const read = readPlanFile(text, known)
  if ('wrong' in read) throw new Error(read.wrong)
  return read.rows
}
const feature = (properties: object, geometry: unknown) => ({ type: 'Feature', properties, geometry })
const file = (...features: object[]) => JSON.stringify({ type: 'FeatureCollection', features })
const polygon = (...rings: Point[][]) => ({ type: 'Polygon', coordinates: rings })
const round = (ring: Ring) => [...ring, ring[0]!]
const wrong = (text: string) => (readPlanFile(text, nothing) as { wrong: string }).wrong

/** A ring that does not cross itself: corners around a middle, by rising angle. */
const star = fc
  .array(fc.record({ turn: fc.double({ min: 0.05, max: 1, noNaN: true }), reach: fc.integer({ min: 1_000, max: 20_000 }) }), { minLength: 3, maxLength: 12 })
  .chain((spokes) => fc.record({ spokes: fc.constant(spokes), east: fc.integer({ min: -500, max: 500 }), north: fc.integer({ min: -500, max: 500 }) }))
  .map(({ spokes, east, north }): Ring => {
    const whole = spokes.reduce((sum, { turn }) => sum + turn, 0)
    let angle = 0
    return spokes.map(({ turn, reach }): Point => {
      angle += (turn / whole) * 2 * Math.PI
      return [toMillimetre(east + (Math.cos(angle) * reach) / 1000), toMillimetre(north + (Math.sin(angle) * reach) / 1000)]
    })
  })
  .filter((ring) => Math.abs(signedArea(ring)) > 1 && !crossesItself(ring))

describe('shapes', () => {
  test('the area of a room is its length by its depth, without what is cut out of it', () => {
    expect(areaOf([box(2, 3, 6, 5)])).toBe(30)
    expect(areaOf([box(0, 0, 10, 10), box(4, 4, 2, 3)])).toBe(94)
    expect(signedArea(box(0, 0, 2, 2))).toBe(4)
    expect(signedArea([...box(0, 0, 2, 2)].reverse())).toBe(-4)
  })

  test('outlines run counterclockwise and what is cut out clockwise (RFC 7946, 3.1.6)', () => {
    const shape: Shape = [[...box(0, 0, 10, 10)].reverse(), box(4, 4, 2, 3)]
    expect(rightHanded(shape).map((ring) => Math.sign(signedArea(ring)))).toEqual([1, -1])
  })

  test('the same room drawn from another corner or the other way round is the same', () => {
    const ring = box(0, 0, 4, 3)
    expect(sameShape([ring], [[...ring.slice(2), ...ring.slice(0, 2)].reverse()])).toBe(true)
    expect(sameShape([ring], [box(0, 0, 4, 3.001)])).toBe(false)
  })

  test('inside is inside, also beside a hole and in a notch', () => {
    const notched: Shape = [
      [
        [0, 0],
        [10, 0],
        [10, 10],
        [6, 10],
        [6, 4],
        [4, 4],
        [4, 10],
        [0, 10],
      ],
    ]
    expect([isInside([2, 8], notched), isInside([5, 8], notched), isInside([8, 8], notched), isInside([5, 2], notched)]).toEqual([true, false, true, true])
    expect(isInside([5, 5], [box(0, 0, 10, 10), box(4, 4, 2, 2)])).toBe(false)
    expect(isInside([12, 5], [box(0, 0, 10, 10)])).toBe(false)
  })

  test('a bow crosses itself, a notch does not, a corner that touches an edge does', () => {
    expect(
      crossesItself([
        [0, 0],
        [4, 4],
        [4, 0],
        [0, 4],
      ]),
    ).toBe(true)
    expect(crossesItself(box(0, 0, 4, 4))).toBe(false)
    expect(
      crossesItself([
        [0, 0],
        [8, 0],
        [8, 8],
        [4, 0],
        [0, 8],
      ]),
    ).toBe(true)
  })

  test('what holds a few points', () => {
    expect(
      boundsOf([
        [3, -1],
        [-2, 5],
      ]),
    ).toEqual({ west: -2, south: -1, east: 3, north: 5 })
    expect(boundsOf([])).toBeNull()
  })

  test('a name is written inside its room, whatever the room looks like', () => {
    fc.assert(
      fc.property(star, (ring) => isInside(nameSpot([ring]), [ring])),
      { numRuns: 60 },
    )
  })
})

describe('GeoJSON', () => {
  const known = (shape: Shape, at: Point | null = null): KnownPlan => ({
    spaces: [{ id: 4, code: 'TID-001', name: 'Wet laboratory 1', shape }],
    assets: [{ id: 9, tag: 'FC-001', name: 'Fan coil', at }],
    elsewhere: { codes: ['lan-001'], tags: ['xf-001'] },
  })

  test('what goes out holds against RFC 7946, and comes in again unchanged', () => {
    fc.assert(
      fc.property(star, fc.tuple(fc.integer({ min: -9_000, max: 9_000 }), fc.integer({ min: -9_000, max: 9_000 })), (ring, [x, y]) => {
        const plan = known([ring], [x / 10, y / 10])
        const text = JSON.stringify(planGeoJson('TID-0', plan))
        // A validator from the registry: rings closed, positions and bbox as they have to be.
        expect(() => check(text)).not.toThrow()
        const { features } = JSON.parse(text) as { features: { geometry: { coordinates: Point[][] } }[] }
        const [outline] = features[0]!.geometry.coordinates
        expect(outline![0]).toEqual(outline!.at(-1))
        expect(signedArea(outline!.slice(0, -1))).toBeGreaterThan(0)
        expect(rowsOf(text, plan).map(({ standing }) => standing)).toEqual(['same', 'same'])
      }),
      { numRuns: 60 },
    )
  })

  test('it says that positions are metres and how far they reach', () => {
    const { units, bbox, floor } = planGeoJson('TID-0', known([box(1, 2, 3, 4)], [9, 0.5]))
    expect({ units, bbox, floor }).toEqual({ units: 'metres', bbox: [1, 0.5, 9, 6], floor: 'TID-0' })
    expect(planGeoJson('TID-0', nothing)).not.toHaveProperty('bbox')
  })

  test('an example of RFC 7946 (A.3, a polygon with a hole, from memory) is read as one space with a hole', () => {
    const outline = [
      [100.0, 0.0],
      [101.0, 0.0],
      [101.0, 1.0],
      [100.0, 1.0],
      [100.0, 0.0],
    ] as Point[]
    const hole = [
      [100.8, 0.8],
      [100.8, 0.2],
      [100.2, 0.2],
      [100.2, 0.8],
      [100.8, 0.8],
    ] as Point[]
    const [row] = rowsOf(file(feature({ code: 'X-1', name: 'Example' }, polygon(outline, hole))))
    expect(row).toMatchObject({ standing: 'new', code: 'X-1', name: 'Example' })
    expect(areaOf(row!.shape!)).toBeCloseTo(1 - 0.36, 9)
    expect(row!.shape!.map((ring) => Math.sign(signedArea(ring)))).toEqual([1, -1])
  })

  test('rings that run the other way are turned, not refused (RFC 7946, 3.1.6)', () => {
    const [row] = rowsOf(file(feature({ code: 'A' }, polygon(round([...box(0, 0, 4, 3)].reverse())))))
    expect(row!.standing).toBe('new')
    expect(row!.shape).toEqual([box(0, 0, 4, 3)])
  })

  test('codes and tags are found however they are written; what was drawn otherwise is changed, what was not is drawn', () => {
    const plan = known([box(0, 0, 4, 3)])
    const rows = rowsOf(
      file(
        feature({ Code: 'tid-001' }, polygon(round(box(0, 0, 5, 3)))),
        feature({ tag: 'fc-001' }, { type: 'Point', coordinates: [1.23456, 2, 7] }),
        feature({ code: 12 }, { type: 'MultiPolygon', coordinates: [[round(box(9, 9, 1, 1))]] }),
      ),
      plan,
    )
    expect(rows.map(({ id, code, standing }) => [id, code, standing])).toEqual([
      [4, 'TID-001', 'changed'],
      [9, 'FC-001', 'drawn'],
      [null, '12', 'new'],
    ])
    expect(rows[1]!.at).toEqual([1.235, 2])
  })

  test('what is drawn and not in the file is counted', () => {
    const read = readPlanFile(file(feature({ code: 'A' }, polygon(round(box(0, 0, 1, 1))))), known([box(0, 0, 4, 3)], [1, 1]))
    expect(read).toMatchObject({ left: 2 })
  })

  const square = round(box(0, 0, 4, 3))
  test.each([
    ['a ring that is not closed', feature({ code: 'A' }, polygon(box(0, 0, 4, 3))), 'not closed'],
    ['a ring of three positions', feature({ code: 'A' }, polygon(square.slice(0, 3))), 'fewer than the four positions'],
    [
      'no area',
      feature(
        { code: 'A' },
        polygon([
          [0, 0],
          [1, 1],
          [2, 2],
          [0, 0],
        ]),
      ),
      'holds no area',
    ],
    [
      'a bow',
      feature(
        { code: 'A' },
        polygon([
          [0, 0],
          [4, 4],
          [4, 0],
          [0, 5],
          [0, 0],
        ]),
      ),
      'crosses itself',
    ],
    ['a hole outside', feature({ code: 'A' }, polygon(square, round(box(9, 9, 1, 1)))), 'outside its outline'],
    [
      'a position that is text',
      feature(
        { code: 'A' },
        {
          type: 'Polygon',
          coordinates: [
            [
              ['0', 0],
              [4, 0],
              [4, 3],
              ['0', 0],
            ],
          ],
        },
      ),
      'two numbers of metres',
    ],
    ['a position far away', feature({ code: 'A' }, polygon(round(box(0, 0, 20_000, 3)))), 'two numbers of metres'],
    ['no code', feature({ name: 'Hall' }, polygon(square)), '"code" is missing'],
    ['a code that is too long', feature({ code: 'x'.repeat(33) }, polygon(square)), 'longer than 32'],
    ['no tag', feature({}, { type: 'Point', coordinates: [1, 1] }), '"tag" is missing'],
    ['a tag nobody has', feature({ tag: 'Q-1' }, { type: 'Point', coordinates: [1, 1] }), 'no asset with the tag Q-1'],
    ['an asset of another floor', feature({ tag: 'XF-001' }, { type: 'Point', coordinates: [1, 1] }), 'not stand on this floor'],
    ['a space of another floor', feature({ code: 'LAN-001' }, polygon(square)), 'not a space of this floor'],
    ['a line', feature({ code: 'A' }, { type: 'LineString', coordinates: square }), 'neither a Polygon'],
    ['no geometry', feature({ code: 'A' }, null), 'neither a Polygon'],
    ['several pieces', feature({ code: 'A' }, { type: 'MultiPolygon', coordinates: [[square], [round(box(9, 9, 1, 1))]] }), 'several pieces'],
    ['something else', { type: 'Thing' }, 'no Feature'],
    ['a coordinate that is nothing', feature({ code: 'A' }, { type: 'Polygon', coordinates: null }), 'no ring'],
  ])('%s cannot be taken, and says why', (_, bad, sentence) => {
    // Twenty metres beside it, so that nothing is taken for degrees.
    const rows = rowsOf(file(bad, feature({ code: 'GOOD' }, polygon(round(box(20, 20, 5, 5))))), known([box(0, 0, 1, 1)]))
    expect(rows[0]).toMatchObject({ standing: 'bad', shape: null, at: null, feature: 1 })
    expect(rows[0]!.sentences.join(' ')).toContain(sentence)
    expect(rows[1]!.standing).toBe('new')
  })

  test('one that comes twice is taken once', () => {
    const one = feature({ code: 'A' }, polygon(square))
    const rows = rowsOf(file(one, { ...one, properties: { code: 'a' } }))
    expect(rows.map(({ standing }) => standing)).toEqual(['new', 'bad'])
    expect(rows[1]!.sentences).toEqual(['Feature 1 is the same one. Keep one of them.'])
  })

  test('what cannot be read at all says so in a sentence', () => {
    expect(wrong('hello')).toContain('no JSON')
    expect(wrong('[]')).toContain('no GeoJSON')
    expect(wrong('{"type":"Topology"}')).toContain('no GeoJSON')
    expect(wrong(file())).toContain('no feature')
    const coast = round(box(-9.05, 53.27, 0.002, 0.001))
    expect(wrong(file(feature({ code: 'A' }, polygon(coast))))).toContain('degrees')
    expect(wrong(file(...Array.from({ length: 5_001 }, () => feature({}, null))))).toContain('more than 5000 features')
  })

  test('whatever is sent, each feature gets an answer and nothing is thrown', () => {
    fc.assert(
      fc.property(fc.array(fc.jsonValue(), { minLength: 1, maxLength: 5 }), (features) => {
        const read = readPlanFile(JSON.stringify({ type: 'FeatureCollection', features }), nothing)
        return 'wrong' in read || read.rows.length === features.length
      }),
    )
  })

  test('normalising twice changes nothing more', () => {
    fc.assert(
      fc.property(
        star,
        (ring) => sameShape(normalised([ring]), [ring]) && JSON.stringify(normalised(normalised([ring]))) === JSON.stringify(normalised([ring])),
      ),
    )
  })
})
