import { isWorkingAt } from '#core/kit'
import type { WorkCalendar } from '#core/kit'
import { isToCome, keepsTo, MOST_TIMES, offerReasons, proposedTimes, windowReason, windowSays } from '#core/windows'
import type { Window } from '#core/windows'

const now = new Date('2026-11-23T10:30:00Z')
const at = (hours: number) => new Date(now.getTime() + hours * 3_600_000)
const span = (from: number, until: number): Window => ({ from: at(from), until: at(until) })
const week = (days: number[]) => Array.from({ length: 7 }, (_, day) => (days.includes(day) ? [{ from: '08:00', to: '18:00' }] : []))
const dublin: WorkCalendar = { zone: 'Europe/Dublin', week: week([0, 1, 2, 3, 4]), holidays: ['2026-11-25'] }

test('why it is no time to agree on: backwards, longer than a day, past, or more than a year ahead', () => {
  const code = (window: Window) => windowReason(window, now, 'until')?.code ?? null
  expect([span(1, 3), span(-1, 1), span(1, 25)].map(code)).toEqual([null, null, null])
  expect([span(3, 3), span(1, 25.1), span(-3, 0), span(367 * 24, 367 * 24 + 2)].map(code)).toEqual(['ends_before', 'too_long', 'in_the_past', 'too_far'])
})

test('an offer says at each of its times what is wrong with it; no two begin at once', () => {
  expect(offerReasons([], now).map(({ code }) => code)).toEqual(['no_times'])
  expect(offerReasons([span(1, 3), span(2, 4), span(1, 5), span(-4, -2)], now).map(({ code, field }) => [code, field])).toEqual([
    ['twice', 'times.2'],
    ['in_the_past', 'times.3'],
  ])
})

test('a visit keeps to what was agreed when it begins within it', () => {
  const window = span(2, 5)
  expect([1.9, 2, 4.9, 5].map((hour) => keepsTo(window, at(hour)))).toEqual([false, true, true, false])
  expect([isToCome(window, at(4.9)), isToCome(window, at(5))]).toEqual([true, false])
})

test('an offer begins with mornings and afternoons of the next working days, over a holiday and a weekend', () => {
  expect(proposedTimes(now, dublin).map((window) => windowSays(window, dublin.zone))).toEqual([
    'Tue 24 Nov, 09:00 to 12:00',
    'Tue 24 Nov, 13:00 to 16:00',
    'Thu 26 Nov, 09:00 to 12:00',
    'Thu 26 Nov, 13:00 to 16:00',
  ])
  expect(proposedTimes(now, dublin).length).toBeLessThanOrEqual(MOST_TIMES)
  const never: WorkCalendar = { ...dublin, week: week([]) }
  expect(proposedTimes(now, never)).toEqual([])
})

test('the clock is changed in between: it stays nine by the clock of the site (2027-03-28, Europe/Dublin)', () => {
  const sunday = { ...dublin, week: week([6]), holidays: [] }
  const [first] = proposedTimes(new Date('2027-03-27T12:00:00Z'), sunday)
  expect([first!.from, isWorkingAt(first!.from, sunday)]).toEqual([new Date('2027-03-28T08:00:00Z'), true])
})

test('a time is said with one day, and with both where it runs past midnight', () => {
  expect(windowSays({ from: new Date('2026-11-24T22:00:00Z'), until: new Date('2026-11-25T02:00:00Z') }, 'Europe/Dublin')).toBe(
    'Tue 24 Nov, 22:00 to Wed 25 Nov, 02:00',
  )
})
