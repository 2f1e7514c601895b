import fc from 'fast-check'
import { readStretches, shiftOn, weekMinutes, writeStretches } from '#core/people'

test.each([
  ['08:00-16:30', '08:00-16:30'],
  ['8-12, 13-16:30', '08:00-12:00, 13:00-16:30'],
  ['800-1630', '08:00-16:30'],
  ['13:00 – 17:00; 8 to 12', '08:00-12:00, 13:00-17:00'],
  ['22:00-24:00', '22:00-24:00'],
  ['08:00-12:00 12:00-16:00', '08:00-12:00, 12:00-16:00'],
  ['', ''],
  ['  ', ''],
])('“%s” is read as “%s”', (text, written) => expect(writeStretches(readStretches(text)!)).toBe(written))

test.each(['16:00-08:00', '08:00-08:00', '08:00', '25:00-26:00', '08:60-09:00', '08:00-12:00, 11:00-13:00', 'morning', '8-9-10', '-'])(
  '“%s” is no shift',
  (text) => expect(readStretches(text)).toBeNull(),
)

test('what is written is read again as it is', () => {
  const quarter = fc.integer({ min: 0, max: 96 }).map((n) => `${String(Math.floor(n / 4)).padStart(2, '0')}:${String((n % 4) * 15).padStart(2, '0')}`)
  fc.assert(
    fc.property(fc.uniqueArray(quarter, { minLength: 0, maxLength: 8 }), (times) => {
      const sorted = [...times].sort()
      const stretches = Array.from({ length: Math.floor(sorted.length / 2) }, (_, index) => ({ from: sorted[2 * index]!, to: sorted[2 * index + 1]! }))
      expect(readStretches(writeStretches(stretches))).toEqual(stretches)
    }),
  )
})

test('a day is as it was said for it, otherwise as the week says', () => {
  const week = Array.from({ length: 7 }, (_, day) => (day < 5 ? [{ from: '08:00', to: '16:00' }] : []))
  const late = { day: '2026-11-25', stretches: [{ from: '12:00', to: '20:00' }] }
  const off = { day: '2026-11-26', stretches: [] }
  expect(shiftOn(week, [late, off], '2026-11-24', 2)).toEqual([{ from: '08:00', to: '16:00' }])
  expect(shiftOn(week, [late, off], '2026-11-25', 3)).toEqual(late.stretches)
  expect(shiftOn(week, [late, off], '2026-11-26', 4)).toEqual([])
  expect(shiftOn(week, [], '2026-11-29', 7)).toEqual([])
  expect(weekMinutes(week)).toBe(5 * 480)
  expect(weekMinutes([[{ from: '22:00', to: '24:00' }]])).toBe(120)
})
