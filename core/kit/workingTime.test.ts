import Holidays from 'date-holidays'
import dayjs from 'dayjs'
import businessTime from 'dayjs-business-time'
import fc from 'fast-check'
import { addWorkingTime, isWorkingAt, workingMinutesBetween } from '#core/kit'
import type { WorkCalendar } from '#core/kit'

const office = (zone: string, holidays: string[] = []): WorkCalendar => ({
  zone,
  week: Array.from({ length: 7 }, (_, day) => (day < 5 ? [{ from: '08:00', to: '17:30' }] : [])),
  holidays,
})
const at = (iso: string) => new Date(iso)

describe('working time', () => {
  test('runs on over a night and a weekend', () => {
    // Friday 16:30 plus two hours: one on Friday, one on Monday.
    expect(addWorkingTime(at('2026-11-20T16:30:00Z'), 120, office('Europe/Dublin'))).toEqual(at('2026-11-23T09:00:00Z'))
    expect(workingMinutesBetween(at('2026-11-20T16:30:00Z'), at('2026-11-23T09:00:00Z'), office('Europe/Dublin'))).toBe(120)
  })

  test('starting outside working hours counts from the next opening', () => {
    expect(addWorkingTime(at('2026-11-21T12:00:00Z'), 30, office('Europe/Dublin'))).toEqual(at('2026-11-23T08:30:00Z'))
    expect(isWorkingAt(at('2026-11-21T12:00:00Z'), office('Europe/Dublin'))).toBe(false)
    expect(isWorkingAt(at('2026-11-23T12:00:00Z'), office('Europe/Dublin'))).toBe(true)
  })

  test('a site works from the opening minute until the closing one, which is not worked any more', () => {
    const calendar = office('Europe/Dublin')
    const working = ['07:59:59', '08:00:00', '17:29:59', '17:30:00'].map((clock) => isWorkingAt(at(`2026-11-23T${clock}Z`), calendar))
    expect(working).toEqual([false, true, true, false])
    expect(isWorkingAt(at('2026-11-23T12:00:00Z'), office('Europe/Dublin', ['2026-11-23']))).toBe(false)
  })

  // Clock changes: IANA time zone database. Dublin 29 Mar 2026 01:00 UTC and 25 Oct 2026 01:00 UTC;
  // New York 8 Mar 2026 07:00 UTC and 1 Nov 2026 06:00 UTC.
  const always = (zone: string): WorkCalendar => ({ zone, week: Array.from({ length: 7 }, () => [{ from: '00:00', to: '24:00' }]), holidays: [] })
  const night = (zone: string): WorkCalendar => ({ zone, week: Array.from({ length: 7 }, () => [{ from: '00:00', to: '06:00' }]), holidays: [] })
  test.each([
    ['Europe/Dublin', '2026-03-29T00:00:00Z', '2026-03-29T05:00:00Z', 300],
    ['Europe/Dublin', '2026-10-24T23:00:00Z', '2026-10-25T06:00:00Z', 420],
    ['America/New_York', '2026-03-08T05:00:00Z', '2026-03-08T10:00:00Z', 300],
    ['America/New_York', '2026-11-01T04:00:00Z', '2026-11-01T11:00:00Z', 420],
  ])('the night shift 00:00 to 06:00 in %s from %s is as long as it really is', (zone, from, to, minutes) => {
    expect(workingMinutesBetween(at(from), at(to), night(zone))).toBe(minutes)
    expect(addWorkingTime(at(from), minutes, night(zone))).toEqual(at(to))
  })

  test('a day that is never closed is the plain clock', () => {
    expect(addWorkingTime(at('2026-03-28T12:00:00Z'), 2880, always('Europe/Dublin'))).toEqual(at('2026-03-30T12:00:00Z'))
  })

  test('public holidays of Ireland are skipped (package date-holidays)', () => {
    const irish = new Holidays('IE')
      .getHolidays(2026)
      .filter((day) => day.type === 'public')
      .map((day) => day.date.slice(0, 10))
    expect(irish).toContain('2026-03-17')
    // From Monday 16 March 17:00 two hours: half an hour on Monday, the rest on Wednesday.
    expect(addWorkingTime(at('2026-03-16T17:00:00Z'), 120, office('Europe/Dublin', irish))).toEqual(at('2026-03-18T09:30:00Z'))
  })

  test('adding and measuring are inverse', () => {
    const stretch = fc
      .tuple(fc.integer({ min: 0, max: 11 }), fc.integer({ min: 12, max: 23 }))
      .map(([from, to]) => ({ from: `${String(from).padStart(2, '0')}:00`, to: `${to}:30` }))
    const calendar = fc.record({
      zone: fc.constantFrom('Europe/Dublin', 'America/New_York', 'Asia/Kolkata', 'Pacific/Auckland'),
      week: fc.array(fc.array(stretch, { maxLength: 1 }), { minLength: 7, maxLength: 7 }).filter((week) => week.some((day) => day.length > 0)),
      holidays: fc.array(
        fc.integer({ min: 1, max: 28 }).map((day) => `2026-03-${String(day).padStart(2, '0')}`),
        { maxLength: 4 },
      ),
    })
    fc.assert(
      fc.property(
        calendar,
        fc.date({ min: at('2026-01-01T00:00:00Z'), max: at('2026-12-31T00:00:00Z'), noInvalidDate: true }),
        fc.integer({ min: 0, max: 6000 }),
        (week, start, minutes) => {
          const end = addWorkingTime(start, minutes, week)
          expect(workingMinutesBetween(start, end, week)).toBeCloseTo(minutes, 6)
          expect(workingMinutesBetween(end, start, week)).toBeCloseTo(-minutes, 6)
        },
      ),
      { numRuns: 150 },
    )
  })

  test('agrees with a business-time library on random cases (package dayjs-business-time)', () => {
    dayjs.extend(businessTime)
    const hours = [{ start: '08:00:00', end: '17:30:00' }]
    dayjs.setBusinessTime({ monday: hours, tuesday: hours, wednesday: hours, thursday: hours, friday: hours, saturday: null, sunday: null })
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500_000 }), fc.integer({ min: 1, max: 3000 }), (offset, minutes) => {
        const start = new Date(at('2026-01-05T08:00:00Z').getTime() + offset * 60_000)
        // The library moves a start outside working hours to the next opening first; ours needs no such step.
        const from = dayjs(start).isBusinessTime() ? dayjs(start) : dayjs(start).nextBusinessTime()
        const end = addWorkingTime(start, minutes, office(zone))
        expect(from.businessMinutesDiff(dayjs(end))).toBe(minutes)
      }),
      { numRuns: 200 },
    )
  })

  test('refuses what cannot be answered', () => {
    expect(() => addWorkingTime(new Date(), -1, office('Europe/Dublin'))).toThrow(RangeError)
    expect(() => addWorkingTime(new Date(), 1, { zone: 'Europe/Dublin', week: [[], [], [], [], [], [], []], holidays: [] })).toThrow(RangeError)
  })
})
