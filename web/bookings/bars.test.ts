import { dayAfter, daysBetween } from '#web/kit'
import { barOf } from './bars'

const wall = (at: string) => at.slice(0, 16)

test('days are counted over months and leap days', () => {
  expect([dayAfter('2026-11-30', 1), dayAfter('2028-02-28', 1), dayAfter('2026-01-01', -1)]).toEqual(['2026-12-01', '2028-02-29', '2025-12-31'])
  expect(daysBetween('2026-12-30', '2027-01-01')).toEqual(['2026-12-30', '2026-12-31', '2027-01-01'])
})

test('a bar lies where its time lies, cut off at the edges; what should be back reaches into the first day', () => {
  const bar = (from: string, until: string, late = false) => barOf({ from, until, late }, '2026-11-26', 10, wall)
  expect(bar('2026-11-27T12:00', '2026-11-28T00:00')).toEqual({ left: 15, width: 5 })
  expect(bar('2026-11-20T00:00', '2026-11-27T00:00')).toEqual({ left: 0, width: 10 })
  expect(bar('2026-12-05T00:00', '2026-12-30T00:00')).toEqual({ left: 90, width: 10 })
  expect(bar('2026-11-20T00:00', '2026-11-25T00:00', true)).toEqual({ left: 0, width: 10 })
})
