import fc from 'fast-check'
import { TheilSenRegression } from 'ml-regression-theil-sen'
import { advance, doubtOf, METER_EVENTS, ranSince, robustSlope, rollsAtOf, stretches, usualPerDay } from '#core/meters'
import type { Reading } from '#core/meters'

const on = (day: number, value: number | string, more: Partial<Reading> = {}): Reading => ({
  value: String(value),
  at: new Date(Date.UTC(2026, 9, day, 8)),
  ...more,
})
const hours = { unit: 'h', rollsAt: null }
const fiveDigits = { unit: 'm3', rollsAt: rollsAtOf(5) }
/** Twenty hours a day for ten days. */
const steady = Array.from({ length: 10 }, (_, day) => on(day + 1, 1_000 + 20 * day))

describe('the slope', () => {
  test('is what a statistics library says of the same points (ml-regression-theil-sen)', () => {
    const points = fc.uniqueArray(fc.record({ x: fc.integer({ min: -500, max: 500 }), y: fc.integer({ min: -1_000, max: 1_000 }) }), {
      selector: ({ x }) => x,
      minLength: 2,
      maxLength: 25,
    })
    fc.assert(
      fc.property(points, (all) => {
        // Of an even number of slopes the library takes the lower of the middle two, and we what lies between them.
        fc.pre(((all.length * (all.length - 1)) / 2) % 2 === 1)
        const library = new TheilSenRegression(all.map(({ x }) => x), all.map(({ y }) => y)) // prettier-ignore
        expect(robustSlope(all)).toBeCloseTo(library.slope, 9)
      }),
    )
  })
  test('is not moved by a few wild points, unlike a straight mean', () => {
    const wild = [...Array.from({ length: 10 }, (_, x) => ({ x, y: 2 * x })), { x: 4.5, y: 900 }, { x: 7.5, y: -400 }]
    expect(robustSlope(wild)).toBeCloseTo(2, 0)
    expect(robustSlope([{ x: 1, y: 1 }, { x: 1, y: 5 }])).toBeNull() // prettier-ignore
  })
})

describe('what a counter ran', () => {
  test('is what it shows more; through its highest number where it shows less; from nought on a new one', () => {
    expect(Number(advance(on(1, 40), on(2, 55.5), null))).toBe(15.5)
    expect(Number(advance(on(1, 99_990), on(2, 15), '100000'))).toBe(25)
    expect(Number(advance(on(1, 5_000), on(2, 30, { anew: true }), '100000'))).toBe(30)
    expect(Number(ranSince([on(3, 30, { anew: true }), on(1, 4_990), on(2, 5_000), on(4, 42)], null))).toBe(52)
    expect(stretches([on(1, 10)], null)).toEqual([])
  })
  test('adds up to the exact thousandth, in whatever order it was heard of', () => {
    const steps = fc.array(fc.integer({ min: 0, max: 90_000_000 }), { minLength: 1, maxLength: 30 })
    fc.assert(
      fc.property(steps, fc.infiniteStream(fc.nat()), (all, order) => {
        let shown = 0
        const readings = [on(1, '0'), ...all.map((step, index) => on(index + 2, ((shown = (shown + step) % 100_000_000) / 1_000).toFixed(3)))]
        const heard = [...readings].sort(() => (order.next().value % 3) - 1)
        expect(ranSince(heard, '100000').times(1_000).toString()).toBe(String(all.reduce((sum, one) => sum + one, 0)))
      }),
    )
  })
  test('a day is its slope, once there are three readings', () => {
    expect(usualPerDay(steady, null)).toBeCloseTo(20, 9)
    expect(usualPerDay([...steady, on(11, 8_000)], null)).toBeCloseTo(20, 9)
    expect(usualPerDay(steady.slice(0, 2), null)).toBeNull()
  })
})

describe('a reading is asked about once', () => {
  test('not when it is like the others, nor when it is the first', () => {
    expect(doubtOf(steady, on(11, 1_203), hours)).toBeNull()
    expect(doubtOf([], on(11, 7), hours)).toBeNull()
    expect(doubtOf(steady, on(11, 1_180), hours)).toBeNull()
  })
  test('when it shows less: it may be another counter, or have rolled over where it can', () => {
    expect(doubtOf(steady, on(11, 900), hours)).toEqual({
      code: 'reading_below',
      sentence: 'The last reading was 1180 h, which is more.',
      answers: ['exchanged'],
    })
    expect(doubtOf(steady, { ...on(11, 900), answer: 'rolled' }, hours)).not.toBeNull()
    expect(doubtOf(steady, { ...on(11, 900), answer: 'exchanged' }, hours)).toBeNull()
    const water = [on(1, 99_000), on(2, 99_400), on(3, 99_800)]
    expect(doubtOf(water, on(4, 180), fiveDigits)?.answers).toEqual(['rolled', 'exchanged'])
    expect(doubtOf(water, { ...on(4, 180), answer: 'rolled' }, fiveDigits)).toBeNull()
  })
  test('when it ran far faster than ever, and is taken once somebody is sure', () => {
    const water = [on(1, 0), on(2, 100), on(3, 210), on(4, 300)]
    expect(doubtOf(water, on(5, 3_000), fiveDigits)).toMatchObject({ code: 'reading_above', answers: ['sure', 'exchanged'] })
    expect(doubtOf(water, { ...on(5, 3_000), answer: 'sure' }, fiveDigits)).toBeNull()
    expect(doubtOf(water, on(5, 450), fiveDigits)).toBeNull()
    // It has run that fast before.
    expect(doubtOf([...water, on(5, 1_300), on(6, 1_400)], on(7, 2_500), fiveDigits)).toBeNull()
  })
  test('when a counter of hours ran longer than the clock', () => {
    expect(doubtOf([on(1, 0)], on(2, 25), hours)?.sentence).toBe('That is 25 h more than the last reading, and only 24 h have passed since.')
    expect(doubtOf([on(1, 0)], on(2, 24), hours)).toBeNull()
  })
  test('when it was recorded without signal and shows more than what was read since', () => {
    expect(doubtOf(steady, { value: '1150', at: new Date(Date.UTC(2026, 9, 5, 9)) }, hours)).toMatchObject({ code: 'reading_later', answers: [] })
    expect(doubtOf(steady, { value: '1083', at: new Date(Date.UTC(2026, 9, 5, 12)) }, hours)).toBeNull()
  })
})

test('events say what was shown', () => {
  expect(METER_EVENTS['meter.read'].about({ meter: 'Running hours', value: '1180', unit: 'h', answer: 'exchanged' })).toBe(
    'Running hours, 1180 h, on a new counter',
  )
})
