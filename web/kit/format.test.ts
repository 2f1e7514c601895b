import fc from 'fast-check'
import { dayOf, fromLocalField, longTime, setServerNow, shortTime, showTimesOf, spell, spellShort, toLocalField, writingHere, writtenDay } from './format'

beforeAll(() => {
  showTimesOf({ zone: 'Europe/Dublin' })
  setServerNow('2026-11-23T10:30:00Z')
})

test('a time typed in the site’s zone means that instant, on any day but in the hour that does not exist', () => {
  expect(fromLocalField('2026-07-01T09:00').toISOString()).toBe('2026-07-01T08:00:00.000Z')
  expect(fromLocalField('2026-11-23T09:00').toISOString()).toBe('2026-11-23T09:00:00.000Z')
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 366 * 24 * 4 }), (quarters) => {
      const at = new Date(Date.UTC(2026, 0, 1) + quarters * 900_000)
      const shown = toLocalField(at)
      // In the repeated hour of October a clock time means one of two instants; either shows the same.
      expect(toLocalField(fromLocalField(shown))).toBe(shown)
    }),
  )
})

test('times are as short as the day allows', () => {
  expect(shortTime('2026-11-23T14:05:00Z')).toBe('14:05')
  expect(shortTime('2026-11-20T14:05:00Z')).toBe('Fri 14:05')
  expect(shortTime('2026-03-03T14:05:00Z')).toMatch(/^3 Mar,? 14:05$/)
  expect(dayOf('2026-12-17')).toBe('17 Dec 2026')
})

test('minutes as people say them', () => {
  expect([5, 60, 200, 1440, 1680, -90].map(spell)).toEqual(['5 min', '1 h', '3 h 20 min', '1 d', '1 d 4 h', '1 h 30 min'])
  expect([89, 90, 240, 3000].map(spellShort)).toEqual(['89 min', '2 h', '4 h', '2 d'])
})

test('days and times are written and read as the site writes them', () => {
  showTimesOf({ zone: 'Europe/Dublin', locale: 'en-US', clock: 12, weekFrom: 7 })
  expect(longTime('2026-11-23T14:05:00Z').replaceAll('\u202f', ' ')).toBe('Mon, Nov 23, 2026, 2:05 PM')
  expect(shortTime('2026-11-23T14:05:00Z').replaceAll('\u202f', ' ')).toBe('2:05 PM')
  expect([dayOf('2026-12-17'), writtenDay('2026-12-17')]).toEqual(['Dec 17, 2026', 'Thu Dec 17, 2026'])
  expect(writingHere()).toMatchObject({ clock: 12, weekFrom: 7 })
  // What the machine reckons with stays the same.
  expect(toLocalField(new Date('2026-11-23T14:05:00Z'))).toBe('2026-11-23T14:05')
  showTimesOf({ zone: 'Europe/Dublin' })
  expect(longTime('2026-11-23T14:05:00Z')).toMatch(/^Mon,? 23 Nov 2026, 14:05$/)
})
