import fc from 'fast-check'
import { bookingsIn, closureReasons, closureStanding, endedSooner, unseen, waitBefore, without } from '#core/closures'
import type { Span, SpaceBooking } from '#core/closures'

const at = (hour: number) => new Date(Date.UTC(2026, 10, 24, 0) + hour * 3_600_000)
const span = (from: number, until: number): Span => ({ from: at(from), until: at(until) })
const booking = (from: number, until: number, what = 'Seminar'): SpaceBooking => ({
  ...span(from, until),
  key: `${what} ${from}`,
  what,
  who: null,
  email: null,
})

test('where a closure stands: from its first instant on, and no longer at its last', () => {
  const standing = (hour: number, state: 'kept' | 'called_off' = 'kept') => closureStanding({ ...span(8, 12), state }, at(hour))
  expect([7, 8, 11.9, 12].map((hour) => standing(hour))).toEqual(['ahead', 'running', 'running', 'over'])
  expect(standing(9, 'called_off')).toBe('called_off')
})

test('why a space cannot be taken out of use: backwards, past, for ever, or twice for one order', () => {
  const codes = (period: Span, same: Span[] = []) => closureReasons(period, same, at(6)).map(({ code, field }) => [code, field])
  expect(codes(span(8, 12))).toEqual([])
  expect(codes(span(8, 8))).toEqual([['ends_before', 'until']])
  expect(codes(span(3, 6))).toEqual([['in_the_past', 'until']])
  expect(codes(span(3, 7))).toEqual([])
  expect(codes(span(8, 8 + 366 * 24))).toEqual([])
  expect(codes(span(8, 9 + 366 * 24))).toEqual([['too_long', 'until']])
  expect(codes(span(8, 12), [span(12, 14), span(2, 8)])).toEqual([])
  expect(codes(span(8, 12), [span(11, 14)])).toEqual([['twice', 'from']])
})

test('what is told of stands by its name; the rest of the busy time without one; our own is no booking', () => {
  const found = bookingsIn(span(8, 16), [span(7, 9), span(10, 12), span(13, 18), span(20, 22)], [booking(7, 9)], [span(10, 11)])
  expect(found.map(({ from, until, what }) => [from, until, what])).toEqual([
    [at(7), at(9), 'Seminar'],
    [at(11), at(12), null],
    [at(13), at(18), null],
  ])
  expect(unseen(found, ['Seminar 7']).map(({ what }) => what)).toEqual([null, null])
})

test('what only touches a period is not in it', () => {
  expect(bookingsIn(span(8, 10), [span(6, 8), span(10, 12)], [booking(6, 8), booking(10, 11)], [])).toEqual([])
})

test('whatever is taken out of a span: what is left covers all the other instants of it, and none of theirs', () => {
  const spans = fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 20 })).map(([from, long]) => span(from, from + long))
  const inside = (one: Span, hour: number) => one.from <= at(hour + 0.5) && at(hour + 0.5) < one.until
  fc.assert(
    fc.property(spans, fc.array(spans, { maxLength: 8 }), (whole, others) => {
      const left = without(whole, others)
      for (let hour = 0; hour < 90; hour++) {
        const expected = inside(whole, hour) && !others.some((other) => inside(other, hour))
        expect(left.filter((piece) => inside(piece, hour))).toHaveLength(expected ? 1 : 0)
      }
    }),
  )
})

test('work done sooner gives back what runs now, calls off what had not begun, and leaves what is over', () => {
  const sooner = (hour: number, state: 'kept' | 'called_off' = 'kept') => endedSooner({ ...span(8, 12), state }, at(hour))
  expect(sooner(10)).toEqual({ state: 'kept', until: at(10) })
  expect(sooner(8)).toEqual({ state: 'called_off', until: at(12) })
  expect(sooner(7)).toEqual({ state: 'called_off', until: at(12) })
  expect([sooner(12), sooner(9, 'called_off')]).toEqual([null, null])
})

test('the bookings system is told again after a minute, then less and less often, every half hour at the least', () => {
  expect([1, 2, 3, 5, 6, 7, 400].map((attempts) => waitBefore(attempts) / 60_000)).toEqual([1, 2, 4, 16, 30, 30, 30])
})
