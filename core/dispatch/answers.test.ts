import fc from 'fast-check'
import { answerTimes, proposalReasons, USUAL_VENDOR_RULES } from '#core/dispatch'
import { PRIORITIES } from '#core/requests'
import type { WorkCalendar } from '#core/kit'

const at = (iso: string) => new Date(iso)
const office: WorkCalendar = {
  zone: 'Europe/Dublin',
  week: Array.from({ length: 7 }, (_, day) => (day < 5 ? [{ from: '08:00', to: '18:00' }] : [])),
  holidays: [],
}
/** A Monday. */
const asked = at('2026-11-23T16:00:00Z')
const times = (start: string, priority: Parameters<typeof answerTimes>[2]) => {
  const { remindAt, tellAt } = answerTimes(asked, at(start), priority, USUAL_VENDOR_RULES, office)
  return [remindAt.toISOString().slice(5, 16), tellAt.toISOString().slice(5, 16)]
}

test('half a working day, then a whole one, over the night; an emergency waits for no morning', () => {
  // Four hours from 16:00 of a day that ends at 18:00, by eight hours.
  expect(times('2026-11-30T09:00:00Z', 'routine')).toEqual(['11-24T10:00', '11-24T14:00'])
  expect(times('2026-11-30T09:00:00Z', null)).toEqual(['11-24T10:00', '11-24T14:00'])
  expect(times('2026-11-30T09:00:00Z', 'emergency')).toEqual(['11-23T16:30', '11-23T17:00'])
})

test('the desk hears of it before the visit begins, and the vendor before the desk', () => {
  expect(times('2026-11-23T18:00:00Z', 'routine')).toEqual(['11-23T17:00', '11-23T18:00'])
  // Sent to something that should have begun already: at once.
  expect(times('2026-11-23T15:00:00Z', 'urgent')).toEqual(['11-23T16:00', '11-23T16:00'])
  fc.assert(
    fc.property(fc.integer({ min: -600, max: 20_000 }), fc.constantFrom(...PRIORITIES), fc.integer({ min: 5, max: 3000 }), (ahead, priority, wait) => {
      const start = new Date(asked.getTime() + ahead * 60_000)
      const rules = { emergency: { remind: wait, tell: 2 * wait }, other: { remind: 3 * wait, tell: wait } }
      const { remindAt, tellAt } = answerTimes(asked, start, priority, rules, office)
      expect(remindAt >= asked && remindAt <= tellAt).toBe(true)
      expect(tellAt.getTime()).toBeLessThanOrEqual(Math.max(start.getTime(), asked.getTime()))
    }),
  )
})

test('why a time cannot be proposed', () => {
  const planned = { start: at('2026-11-25T09:00:00Z'), end: at('2026-11-25T10:00:00Z') }
  const code = (start: string, end: string) => proposalReasons(at(start), at(end), planned, asked)[0]?.code ?? null
  expect([
    code('2026-11-26T09:00:00Z', '2026-11-26T10:00:00Z'),
    code('2026-11-25T09:00:00Z', '2026-11-25T11:00:00Z'),
    code('2026-11-26T09:00:00Z', '2026-11-26T09:00:00Z'),
    code('2026-11-26T09:00:00Z', '2026-11-27T09:01:00Z'),
    code('2026-11-23T15:59:00Z', '2026-11-23T17:00:00Z'),
    code('2027-11-26T09:00:00Z', '2027-11-26T10:00:00Z'),
    code('2026-11-25T09:00:00Z', '2026-11-25T10:00:00Z'),
  ]).toEqual([null, null, 'ends_before', 'too_long', 'in_the_past', 'too_far', 'same_time'])
})
