import fc from 'fast-check'
import { bookingReasons, clashesWith, handOutReasons, hireCost, hireDays, isLate, MOST_BOOKED_DAYS, overlaps } from '#core/bookings'
import type { OtherBooking } from '#core/bookings'

const at = (hour: number) => new Date(Date.UTC(2026, 10, 26, hour))
const other = (from: number, until: number, more: Partial<OtherBooking> = {}): OtherBooking => ({
  id: 1,
  state: 'booked',
  orderNumber: 'W-1',
  from: at(from),
  until: at(until),
  ...more,
})
const now = at(0)

test('one that begins when another ends is not in its way; half an hour together is', () => {
  expect(overlaps({ from: at(8), until: at(10) }, { from: at(10), until: at(12) })).toBe(false)
  expect(overlaps({ from: at(8), until: at(10) }, { from: at(9), until: at(12) })).toBe(true)
  expect(overlaps({ from: at(9), until: at(10) }, { from: at(8), until: at(12) })).toBe(true)
})

test('what is given up or given back is in nobody’s way; what should be back is, until it is', () => {
  const period = { from: at(8), until: at(12) }
  const ids = (others: OtherBooking[], when = now) => clashesWith(period, others, when).map(({ id }) => id)
  expect(ids([other(9, 10), other(9, 10, { id: 2, state: 'back' }), other(9, 10, { id: 3, state: 'cancelled' }), other(12, 14, { id: 4 })])).toEqual([1])
  expect(ids([other(1, 3, { state: 'out' })], at(2))).toEqual([])
  expect(ids([other(1, 3, { state: 'out' })], at(9))).toEqual([1])
  expect(isLate({ state: 'out', until: at(3) }, at(4))).toBe(true)
  expect(isLate({ state: 'booked', until: at(3) }, at(4))).toBe(false)
})

test('whatever was booked without a clash never shares an instant with what was there', () => {
  const hours = fc.tuple(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 1, max: 40 }))
  fc.assert(
    fc.property(fc.array(hours, { maxLength: 20 }), (asked) => {
      const kept: OtherBooking[] = []
      for (const [from, long] of asked) {
        const period = { from: at(from), until: at(from + long) }
        if (!clashesWith(period, kept, now).length) kept.push({ ...period, id: kept.length, state: 'booked', orderNumber: 'W-1' })
      }
      // Instant by instant, at most one of them has it.
      for (let hour = 0; hour < 250; hour++) expect(kept.filter(({ from, until }) => from <= at(hour) && at(hour) < until).length).toBeLessThanOrEqual(1)
    }),
  )
})

test('why it cannot be booked: backwards, for ever, over another, or past its inspection', () => {
  const asked = { from: at(8), until: at(12), inspectedUntil: null, lastDay: '2026-11-26' }
  const codes = (more: Partial<Parameters<typeof bookingReasons>[0]>, clashes: OtherBooking[] = []) =>
    bookingReasons({ ...asked, ...more }, clashes).map(({ code, field }) => [code, field])
  expect(codes({})).toEqual([])
  expect(codes({ until: at(8) })).toEqual([['ends_before', 'until']])
  expect(codes({ until: at(9 + MOST_BOOKED_DAYS * 24) })).toEqual([['too_long', 'until']])
  expect(codes({ inspectedUntil: '2026-11-26' })).toEqual([])
  expect(codes({ inspectedUntil: '2026-11-25' }, [other(9, 10)])).toEqual([
    ['clash', 'from'],
    ['inspection', 'until'],
  ])
  expect(bookingReasons(asked, [other(9, 10, { state: 'out' })])[0]!.sentence).toBe('W-1 has it then.')
})

test('nobody is handed what another has, or what is not inspected any more', () => {
  const codes = (booking: Partial<Parameters<typeof handOutReasons>[0]>, who: string | null = null) =>
    handOutReasons({ state: 'booked', inspectedUntil: null, ...booking }, '2026-11-26', who).map(({ code }) => code)
  expect(codes({})).toEqual([])
  expect(codes({ state: 'back' })).toEqual(['wrong_state'])
  expect(codes({ inspectedUntil: '2026-11-25' }, 'Bram')).toEqual(['out', 'inspection'])
  expect(codes({ inspectedUntil: '2026-11-26' })).toEqual([])
})

test('each day of 24 hours that has begun is charged, one at the least (by hand)', () => {
  const days = (from: number, until: number) => hireDays({ from: at(from), until: at(until) })
  expect([days(8, 8), days(8, 9), days(8, 32), days(8, 33), days(8, 56)]).toEqual([1, 1, 1, 2, 2])
  expect(hireCost({ from: at(8), until: at(58) }, 2_500)).toBe(7_500)
})
