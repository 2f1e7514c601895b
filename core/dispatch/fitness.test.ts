import { fitnessOf, isBillable, isLiveVisit, nextVisitKind, VISIT_STATES } from '#core/dispatch'
import type { Candidate } from '#core/dispatch'

const at = (iso: string) => new Date(iso)
const weekdays = Array.from({ length: 7 }, (_, day) => (day < 5 ? [{ from: '08:00', to: '16:30' }] : []))
const free: Candidate = { tradeIds: [1], skills: [], shift: weekdays, leave: [], planned: [] }
const wish = { tradeId: 1, skills: [] as string[], start: at('2026-11-23T10:00:00Z'), end: at('2026-11-23T11:00:00Z'), zone: 'Europe/Dublin' }

test('trade, shift, leave, overlap and load', () => {
  expect(fitnessOf(free, wish)).toEqual({ hasTrade: true, lacks: [], onShift: true, away: false, overlapMinutes: 0, loadMinutes: 0 })
  expect(fitnessOf({ ...free, tradeIds: [2] }, wish).hasTrade).toBe(false)
  const skilled = { ...free, skills: [{ name: 'Digging', until: '2026-11-22' }] }
  expect(fitnessOf(skilled, { ...wish, skills: ['Digging', 'First aid'] }).lacks).toEqual(['Digging', 'First aid'])
  expect(fitnessOf({ ...free, skills: [{ name: 'Digging', until: '2026-11-23' }] }, { ...wish, skills: ['digging'] }).lacks).toEqual([])
  expect(fitnessOf(free, { ...wish, end: at('2026-11-23T16:31:00Z') }).onShift).toBe(false)
  expect(fitnessOf(free, { ...wish, start: at('2026-11-22T10:00:00Z'), end: at('2026-11-22T11:00:00Z') }).onShift).toBe(false)
  expect(fitnessOf({ ...free, leave: [{ from: at('2026-11-23T10:59:00Z'), to: at('2026-11-24T00:00:00Z') }] }, wish).away).toBe(true)
  const planned = [
    { start: at('2026-11-23T10:30:00Z'), end: at('2026-11-23T12:00:00Z') },
    { start: at('2026-11-24T08:00:00Z'), end: at('2026-11-24T09:00:00Z') },
  ]
  expect(fitnessOf({ ...free, planned }, wish)).toMatchObject({ overlapMinutes: 30, loadMinutes: 90 })
})

test('leave that ends as the visit begins, or begins as it ends, is none', () => {
  const away = (from: string, to: string) => fitnessOf({ ...free, leave: [{ from: at(from), to: at(to) }] }, wish).away
  expect([away('2026-11-23T08:00:00Z', '2026-11-23T10:00:00Z'), away('2026-11-23T11:00:00Z', '2026-11-23T12:00:00Z')]).toEqual([false, false])
  expect([away('2026-11-23T08:00:00Z', '2026-11-23T10:00:01Z'), away('2026-11-23T10:59:59Z', '2026-11-23T12:00:00Z')]).toEqual([true, true])
  const visit = (start: string, end: string) => fitnessOf({ ...free, planned: [{ start: at(start), end: at(end) }] }, wish).overlapMinutes
  expect([visit('2026-11-23T09:00:00Z', '2026-11-23T10:00:00Z'), visit('2026-11-23T09:00:00Z', '2026-11-23T12:00:00Z')]).toEqual([0, 60])
})

test('the shift holds to its last minute, on one day', () => {
  expect(fitnessOf(free, { ...wish, start: at('2026-11-23T08:00:00Z'), end: at('2026-11-23T16:30:00Z') }).onShift).toBe(true)
  expect(fitnessOf(free, { ...wish, start: at('2026-11-23T07:59:00Z') }).onShift).toBe(false)
  expect(fitnessOf(free, { ...wish, start: at('2026-11-23T16:00:00Z'), end: at('2026-11-24T09:00:00Z') }).onShift).toBe(false)
  expect(fitnessOf(free, { ...wish, tradeId: null }).hasTrade).toBe(true)
})

test('the shift is read in the site’s zone: 07:30 UTC is 08:30 in an Irish summer', () => {
  expect(fitnessOf(free, { ...wish, start: at('2026-07-06T07:30:00Z'), end: at('2026-07-06T08:30:00Z') }).onShift).toBe(true)
  expect(fitnessOf(free, { ...wish, start: at('2026-11-23T07:30:00Z'), end: at('2026-11-23T08:30:00Z') }).onShift).toBe(false)
  // 16:00 UTC is 17:00 there, after the shift has ended.
  expect(fitnessOf(free, { ...wish, start: at('2026-07-06T15:00:00Z'), end: at('2026-07-06T16:00:00Z') }).onShift).toBe(false)
})

test('first, return and follow-up visits', () => {
  expect([nextVisitKind(0, false), nextVisitKind(2, false), nextVisitKind(1, true)]).toEqual(['first', 'return', 'follow_up'])
})

test('who is still to come or there, and which visits a bill is sent for', () => {
  expect(VISIT_STATES.filter(isLiveVisit)).toEqual(['planned', 'on_site'])
  expect(VISIT_STATES.filter((state) => isBillable({ vendorId: 4, state }))).toEqual(['on_site', 'ended'])
  // Our own people send none.
  expect(VISIT_STATES.filter((state) => isBillable({ vendorId: null, state }))).toEqual([])
})

test('the days of the shift are those of the site’s week, and a shift that says nothing of a day has none', () => {
  const sunday = { ...wish, start: at('2026-11-22T10:00:00Z'), end: at('2026-11-22T11:00:00Z') }
  const sundays = Array.from({ length: 7 }, (_, day) => (day === 6 ? [{ from: '08:00', to: '16:30' }] : []))
  expect([fitnessOf({ ...free, shift: sundays }, sunday).onShift, fitnessOf({ ...free, shift: sundays }, wish).onShift]).toEqual([true, false])
  expect(fitnessOf({ ...free, shift: [] }, wish).onShift).toBe(false)
  // 23:30 UTC on a Sunday in summer is Monday in Ireland: the load is that of the local day.
  const monday = { ...wish, start: at('2026-07-05T23:30:00Z'), end: at('2026-07-05T23:45:00Z') }
  expect(fitnessOf({ ...free, planned: [{ start: at('2026-07-06T22:00:00Z'), end: at('2026-07-06T22:40:00Z') }] }, monday).loadMinutes).toBe(40)
})
