import fc from 'fast-check'
import { halfOf, hoursShown, instantAt, lanesOf, placeOf } from '#core/board'

const at = (text: string) => new Date(`2026-11-${text}Z`)
const span = (from: number, until: number) => ({ from: new Date(from * 60_000), until: new Date(until * 60_000) })

test('what follows another takes its lane; what overlaps gets one of its own', () => {
  expect(lanesOf([span(0, 60), span(60, 90), span(30, 90), span(30, 40)])).toEqual([0, 0, 1, 2])
  expect(lanesOf([])).toEqual([])
})

test('no two in one lane share an instant, and there are no more lanes than run at once', () => {
  const spans = fc.array(
    fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 1, max: 30 })).map(([from, long]) => span(from, from + long)),
    { maxLength: 30 },
  )
  fc.assert(
    fc.property(spans, (all) => {
      const lanes = lanesOf(all)
      let most = 0
      for (let minute = 0; minute < 140; minute++) {
        const now = all.flatMap(({ from, until }, index) => (from.getTime() <= minute * 60_000 && minute * 60_000 < until.getTime() ? [lanes[index]!] : []))
        expect(new Set(now).size).toBe(now.length)
        most = Math.max(most, now.length)
      }
      expect(all.length ? Math.max(...lanes) + 1 : 0).toBe(most)
    }),
  )
})

test('the hours drawn are whole, hold every shift and visit, and are eight at the least; all of them where one runs past midnight', () => {
  const of = (...pairs: [string, string][]) =>
    hoursShown(
      pairs.map(([from, until]) => ({ from: at(from), until: at(until) })),
      'Europe/Dublin',
    )
  expect(of(['24T08:00', '24T16:30'], ['25T07:30', '25T09:00'])).toEqual({ from: 7, to: 17 })
  expect(of(['24T10:00', '24T11:00'])).toEqual({ from: 7, to: 15 })
  expect(of(['24T22:00', '25T06:00'])).toEqual({ from: 0, to: 24 })
  expect(of(['24T18:00', '25T00:00'])).toEqual({ from: 16, to: 24 })
  expect(of()).toEqual({ from: 8, to: 18 })
})

test('each day is as wide as the others, also the one on which the clocks go back (2026-10-25, Europe/Dublin)', () => {
  const board = { first: '2026-10-24', days: 3, hours: { from: 8, to: 18 }, zone: 'Europe/Dublin' }
  const place = (text: string) => placeOf(new Date(text), board)
  expect(place('2026-10-24T07:00:00Z')).toBe(0)
  expect(place('2026-10-24T12:00:00Z')).toBeCloseTo(0.5 / 3)
  expect(place('2026-10-25T13:00:00Z')).toBeCloseTo(1.5 / 3)
  expect(place('2026-10-26T18:00:00Z')).toBe(1)
  // What lies before the hours, or the days, that are drawn stands at their edge.
  expect([place('2026-10-25T03:00:00Z'), place('2026-10-20T12:00:00Z'), place('2026-11-20T12:00:00Z')]).toEqual([1 / 3, 0, 1])
})

test('what is put somewhere lies there, in winter, in summer and across the night on which the clock is set', () => {
  for (const first of ['2026-11-23', '2026-07-06', '2026-03-28', '2026-10-24'])
    fc.assert(
      fc.property(fc.constantFrom(1, 3, 7), fc.integer({ min: 0, max: 47 }), fc.integer({ min: 0, max: 6 }), (days, quarter, day) => {
        const frame = { first, days, hours: { from: 6, to: 18 }, zone: 'Europe/Dublin' }
        const share = ((day % days) + quarter / 48) / days
        expect(placeOf(instantAt(share, frame, 15), frame)).toBeCloseTo(share, 9)
      }),
    )
  const frame = { first: '2026-11-23', days: 1, hours: { from: 8, to: 18 }, zone: 'Europe/Dublin' }
  expect([instantAt(-3, frame, 15), instantAt(0.1001, frame, 15), instantAt(7, frame, 15)]).toEqual([
    new Date('2026-11-23T08:00:00Z'),
    new Date('2026-11-23T09:00:00Z'),
    new Date('2026-11-23T18:00:00Z'),
  ])
  expect(instantAt(1, { ...frame, hours: { from: 0, to: 24 } }, 15)).toEqual(new Date('2026-11-24T00:00:00Z'))
})

test('halves of a day meet at a whole hour', () => {
  expect([halfOf({ from: 8, to: 17 }, 'early'), halfOf({ from: 8, to: 17 }, 'late')]).toEqual([
    { from: 8, to: 13 },
    { from: 13, to: 17 },
  ])
})
