import fc from 'fast-check'
import { learnedWays, LEAST_SEEN, metresBetween, middleOf, readPosition, TRAVEL_MINUTES, travelMinutes, waysOf } from '#core/travel'

const NONE = { at: [], on: [], said: [] }

test('metres along the great circle: Berlin to Tokyo, a degree of the meridian, and nought', () => {
  // The usual worked example of an orthodrome, from memory: 8,917.6 km on a sphere of 6,370 km.
  const [berlin, tokyo] = [
    { lat: 52.517, lon: 13.4 },
    { lat: 35.7, lon: 139.767 },
  ]
  expect(metresBetween(berlin, tokyo) / 1000).toBeCloseTo((8_917.6 * 6_371.0088) / 6_370, -1)
  // A degree of the meridian on the sphere of the mean radius is 111.195 km.
  expect(metresBetween({ lat: 10, lon: 5 }, { lat: 11, lon: 5 })).toBeCloseTo(111_195.08, 0)
  expect(metresBetween(berlin, berlin)).toBe(0)
})

test('a position as it is copied from a map', () => {
  expect(['53.2707, -9.0568', ' 53.2707 -9.0568 ', '-33;151.2'].map((text) => readPosition(text))).toEqual([
    { lat: 53.2707, lon: -9.0568 },
    { lat: 53.2707, lon: -9.0568 },
    { lat: -33, lon: 151.2 },
  ])
  expect(['', 'here', '53', '91, 0', '0, 181', '53,2, 9'].map((text) => readPosition(text))).toEqual([null, null, null, null, null, null])
})

test('the middle of a ring is that of its area', () => {
  // An L of three squares: the first moment of each, by hand.
  const l = [
    [0, 0],
    [2, 0],
    [2, 1],
    [1, 1],
    [1, 2],
    [0, 2],
  ] as [number, number][]
  const [east, north] = middleOf(l)
  expect([east.toFixed(4), north.toFixed(4)]).toEqual(['0.8333', '0.8333'])
  expect(middleOf([...l].reverse()).map((one) => one.toFixed(4))).toEqual(['0.8333', '0.8333'])
  expect(
    middleOf([
      [1, 1],
      [3, 1],
    ]),
  ).toEqual([2, 1])
})

test('nothing known is by the tree', () => {
  const path = fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 5 }).map((steps) => `/${steps.join('/')}/`)
  const ways = waysOf(NONE)
  fc.assert(fc.property(path, path, (a, b) => ways(a, b) === travelMinutes(a, b)))
  expect([ways(null, '/1/'), ways('/1/2/3/4/', '/1/2/3/4/')]).toEqual([0, 0])
})

test('on one floor by the metres between rooms, 1.3 times as far at 1.2 m/s; on another floor by the tree', () => {
  const ways = waysOf({
    ...NONE,
    on: [
      [4, 0, 0],
      [5, 30, 40],
      [6, 1, 1],
      [9, 0, 0],
    ],
  })
  // 50 m, 65 m walked, 54 s.
  expect(ways('/1/2/3/4/', '/1/2/3/5/')).toBe(1)
  expect(
    waysOf({
      ...NONE,
      on: [
        [4, 0, 0],
        [5, 180, 240],
      ],
    })('/1/2/3/4/', '/1/2/3/5/'),
  ).toBe(6)
  expect(ways('/1/2/3/4/', '/1/2/3/6/')).toBe(1)
  expect(ways('/1/2/3/4/', '/1/2/8/9/')).toBe(TRAVEL_MINUTES.building)
  expect(ways('/1/2/3/4/', '/1/2/3/7/')).toBe(TRAVEL_MINUTES.floor)
})

test('between buildings on foot, between sites by road, by where they stand; the closest position around a place counts', () => {
  // A thousandth of a degree of latitude is 111 m.
  const at = [
    [1, 53.0, -9],
    [2, 53.0, -9],
    [3, 53.003, -9],
    [9, 53.2, -9],
  ] as [number, number, number][]
  const ways = waysOf({ ...NONE, at })
  // 334 m, 434 walked, 6.02 minutes, and two doors.
  expect(ways('/1/2/4/5/', '/1/3/6/7/')).toBe(7 + 2)
  expect(ways('/1/2/4/5/', '/1/8/6/7/')).toBe(TRAVEL_MINUTES.site)
  // 22.24 km, 31.1 by road, 46.7 minutes at 40 km/h, and six for the car.
  expect(ways('/1/2/4/5/', '/9/10/11/12/')).toBe(47 + 6)
  expect(ways('/1/2/4/5/', '/7/10/11/12/')).toBe(TRAVEL_MINUTES.beyond)
})

test('what was said goes before what is reckoned, of two rooms before their buildings; each direction by itself', () => {
  const ways = waysOf({
    ...NONE,
    at: [
      [2, 53, -9],
      [3, 53.003, -9],
    ],
    said: [
      [2, 3, 15],
      [5, 7, 4],
      [3, 2, 20],
    ],
  })
  expect([ways('/1/2/4/5/', '/1/3/6/7/'), ways('/1/2/4/8/', '/1/3/6/7/'), ways('/1/3/6/7/', '/1/2/4/5/')]).toEqual([4, 15, 20])
})

test('ways are learned from at least five, by their median, for buildings and floors; one long search for a car park changes nothing', () => {
  const seen = (fromPath: string, toPath: string, ...all: number[]) => all.map((minutes) => ({ fromPath, toPath, minutes }))
  expect(LEAST_SEEN).toBe(5)
  expect(
    learnedWays([
      ...seen('/1/2/4/5/', '/1/3/6/7/', 8, 9, 10),
      ...seen('/1/2/4/8/', '/1/3/6/', 9, 95),
      ...seen('/1/3/6/7/', '/1/2/4/5/', 12, 12, 12, 12),
      ...seen('/1/2/4/5/', '/1/2/9/10/', 3, 3, 4, 4, 3, 4),
      ...seen('/1/2/4/5/', '/1/2/4/6/', 1, 1, 1, 1, 1, 1),
      ...seen('/1/2/4/5/', '/1/2/4/5/', 5, 5, 5, 5, 5),
    ]),
  ).toEqual([
    { fromId: 2, toId: 3, minutes: 9, seen: 5 },
    { fromId: 4, toId: 9, minutes: 4, seen: 6 },
  ])
})
