import fc from 'fast-check'
import { conflictsOf, firstFit, isAsked, isBarred, loadOf, presenceOf, rankFits } from '#core/board'
import { TRAVEL_MINUTES, travelMinutes } from '#core/travel'
import type { BoardJob, BoardTechnician } from '#core/board'

const zone = 'Europe/Dublin'
const at = (clock: string, day = '23') => new Date(`2026-11-${day}T${clock}:00Z`)
const span = (from: string, until: string, day = '23') => ({ from: at(from, day), until: at(until, day) })
const job: BoardJob = { tradeId: 1, trade: 'Electrical', skills: [], path: '/1/2/3/4/', window: null, target: null, between: [] }
const bram: BoardTechnician = {
  name: 'Bram',
  tradeIds: [1],
  skills: [],
  shifts: [span('08:00', '12:00'), span('12:00', '16:30'), span('08:00', '16:30', '24')],
  away: [],
  visits: [],
}
const now = at('07:00')
const codes = (who: BoardTechnician | null, when = span('10:00', '11:00'), what = job) => conflictsOf(what, who, when, now, zone).map(({ code }) => code)

test('nothing speaks against a job of the trade within the shift, across two stretches that meet', () => {
  expect(codes(bram)).toEqual([])
  expect(codes(bram, span('11:30', '12:30'))).toEqual([])
})

test.each<[string, BoardTechnician | null, ReturnType<typeof span>, Partial<BoardJob>, string[], string]>([
  ['a trade they have not', { ...bram, tradeIds: [2] }, span('10:00', '11:00'), {}, ['trade'], 'Electrical is no trade of Bram.'],
  ['after the shift', bram, span('16:00', '17:00'), {}, ['shift'], 'Bram works 08:00 to 12:00 and 12:00 to 16:30 that day.'],
  ['a day off', bram, span('10:00', '11:00', '25'), {}, ['shift'], 'Bram does not work that day.'],
  ['on call outside of the shift', { ...bram, onCall: [span('16:30', '23:59')] }, span('16:00', '18:00'), {}, ['shift'], 'Bram is on call then.'],
  ['leave, which is said alone', { ...bram, away: [span('09:00', '10:01')] }, span('10:00', '17:00'), {}, ['away'], 'Bram is away then.'],
  [
    'another visit',
    { ...bram, visits: [{ ...span('10:30', '11:30'), number: 'W-1', path: '/1/2/3/4/' }] },
    span('10:00', '11:00'),
    {},
    ['overlap'],
    'Bram is at W-1 then, 10:30 to 11:30.',
  ],
  [
    'too little time for the way there',
    { ...bram, visits: [{ ...span('09:00', '09:55'), number: 'W-1', path: '/1/9/1/1/' }] },
    span('10:00', '11:00'),
    {},
    ['travel'],
    'It is 8 min from W-1, and 5 are left for it.',
  ],
  [
    'too little time for the way on',
    { ...bram, visits: [{ ...span('11:01', '12:00'), number: 'W-2', path: '/1/2/3/9/' }] },
    span('10:00', '11:00'),
    {},
    ['travel'],
    'It is 2 min on to W-2, and 1 are left for it.',
  ],
  ['an agreed window', bram, span('10:00', '11:00'), { window: span('13:00', '15:00') }, ['window'], 'It was agreed for Mon 23 Nov, 13:00 to 15:00.'],
  ['the past, which nothing overrules', bram, span('06:00', '07:00'), {}, ['past', 'shift'], 'That time has passed.'],
  ['a target it would miss', bram, span('10:00', '11:00'), { target: at('10:30') }, ['target'], 'It would end after its target, Mon 23 Nov, 10:30.'],
  ['a vendor, of whom the time alone is judged', null, span('02:00', '03:00', '25'), {}, [], ''],
])('%s', (_name, who, when, more, expected, sentence) => {
  const found = conflictsOf({ ...job, ...more }, who, when, now, zone)
  expect(found.map(({ code }) => code)).toEqual(expected)
  if (sentence) expect(found[0]!.sentence).toBe(sentence)
})

test('what stands between an order and dispatch bars it, wants a reason, or is only said', () => {
  const between = (['permit', 'missing', 'approval'] as const).map((code) => ({ code, sentence: code }))
  const found = conflictsOf({ ...job, between }, bram, span('10:00', '11:00'), now, zone)
  expect(found.map(({ code, weight }) => `${code} ${weight}`)).toEqual(['approval never', 'missing ask', 'permit hint'])
  expect([isAsked(found), isBarred(found)]).toEqual([true, true])
  expect([isAsked(found.slice(2)), isBarred(found.slice(1))]).toEqual([false, false])
})

test('in summer the clock of the site decides', () => {
  // 08:00 in Ireland is 07:00 UTC then; the sentence says what the wall shows.
  const summer = { ...bram, shifts: [{ from: new Date('2026-07-06T07:00:00Z'), until: new Date('2026-07-06T15:30:00Z') }] }
  const when = { from: new Date('2026-07-06T15:00:00Z'), until: new Date('2026-07-06T16:00:00Z') }
  expect(conflictsOf(job, summer, when, new Date('2026-07-06T06:00:00Z'), zone).map(({ sentence }) => sentence)).toEqual([
    'Bram works 08:00 to 16:30 that day.',
  ])
})

test('ways: none at one place or within it, longer the less both places share', () => {
  const { floor, building, site, beyond } = TRAVEL_MINUTES
  expect(['/1/2/3/4/', '/1/2/3/9/', '/1/2/9/9/', '/1/9/9/9/', '/9/9/9/9/'].map((to) => travelMinutes('/1/2/3/4/', to))).toEqual([
    0,
    floor,
    building,
    site,
    beyond,
  ])
  expect([travelMinutes('/1/2/3/4/', '/1/2/3/'), travelMinutes('/1/2/3/4/', '/1/2/'), travelMinutes('/1/', '/1/2/3/')]).toEqual([0, building, site])
  expect([travelMinutes(null, '/1/'), travelMinutes('/1/', null)]).toEqual([0, 0])
  const path = fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 4 }).map((ids) => `/${ids.join('/')}/`)
  fc.assert(fc.property(path, path, (a, b) => travelMinutes(a, b) === travelMinutes(b, a)))
})

test('the first fit begins on a quarter, leaves time for the way, and is none without the trade', () => {
  const busy = { ...bram, visits: [{ ...span('08:00', '09:50'), number: 'W-1', path: '/1/9/9/9/' }] }
  expect(firstFit(job, busy, 60, at('07:10'), zone)?.at).toEqual(span('10:00', '11:00'))
  expect(firstFit(job, bram, 60, at('09:05'), zone)?.at).toEqual(span('09:15', '10:15'))
  // Four and a half hours do not fit what is left of the day.
  expect(firstFit(job, bram, 270, at('12:10'), zone)?.at).toEqual(span('08:00', '12:30', '24'))
  expect(firstFit(job, { ...bram, tradeIds: [] }, 60, now, zone)).toBeNull()
  expect(firstFit({ ...job, window: span('13:00', '15:00') }, bram, 60, now, zone)?.at.from).toEqual(at('13:00'))
  // A part that lacks is no matter of the time.
  expect(firstFit({ ...job, between: [{ code: 'missing', sentence: 'lacks' }] }, bram, 60, now, zone)?.at.from).toEqual(at('08:00'))
})

test('a first fit never wants a reason, and nothing earlier on the grid would do', () => {
  const clock = fc.integer({ min: 32, max: 64 })
  fc.assert(
    fc.property(fc.array(fc.tuple(clock, fc.integer({ min: 1, max: 8 })), { maxLength: 4 }), fc.integer({ min: 1, max: 16 }), (spans, quarters) => {
      const quarter = (n: number) => new Date(at('00:00').getTime() + n * 900_000)
      const visits = spans.map(([start, many], n) => ({ from: quarter(start), until: quarter(start + many), number: `W-${n}`, path: `/1/2/${n}/` }))
      const who = { ...bram, shifts: [span('08:00', '16:30')], visits }
      const found = firstFit(job, who, quarters * 15, now, zone)
      const fits = (start: number) => !isAsked(conflictsOf(job, who, { from: quarter(start), until: quarter(start + quarters) }, now, zone))
      const first = Array.from({ length: 96 }, (_, n) => n).find(fits)
      expect(found?.at.from ?? null).toEqual(first === undefined ? null : quarter(first))
    }),
  )
})

test('who ends before the target goes first, then who knows the asset, then who begins first', () => {
  const fit = (name: string, from: string, times = 0, visits: BoardTechnician['visits'] = []) => ({
    who: { ...bram, name, visits },
    fit: { at: { from: at(from), until: new Date(at(from).getTime() + 3_600_000) }, conflicts: [] },
    times,
  })
  const near = { ...span('08:00', '09:30'), number: 'W-1', path: '/1/2/3/9/' }
  const ranked = rankFits({ ...job, target: at('12:00') }, [fit('Late', '11:30', 3), fit('Early', '08:00'), fit('Knows', '10:00', 2, [near])], zone)
  expect(ranked.map(({ who, because }) => [who.name, ...because])).toEqual([
    ['Knows', 'Worked on its asset 2 times within a year.', '2 min from W-1 before it.', '1 h 30 min planned that day.'],
    ['Early', 'Nothing else planned that day.'],
    ['Late', 'Only after its target.', 'Worked on its asset 3 times within a year.', 'Nothing else planned that day.'],
  ])
})

test('the hours of a week: leave is no work, what overlaps counts once, and outside of the shift nothing is freed', () => {
  const within = { from: at('00:00'), until: at('00:00', '30') }
  const visits = [
    { ...span('09:00', '11:00'), promised: true },
    { ...span('10:00', '12:00'), promised: false },
    { ...span('16:00', '18:00'), promised: false },
  ]
  expect(loadOf({ shifts: bram.shifts, away: [span('08:00', '09:30', '24')] }, visits, within)).toEqual({
    shiftMinutes: 510 + 420,
    plannedMinutes: 180 + 120,
    promisedMinutes: 120,
    freeMinutes: 510 + 420 - 180 - 30,
  })
  expect(loadOf({ shifts: [], away: [] }, [], within)).toEqual({ shiftMinutes: 0, plannedMinutes: 0, promisedMinutes: 0, freeMinutes: 0 })
})

test('how long somebody is there is read of the plan of their trade, and is an hour where there is none', () => {
  const line = (tradeId: number, people: number, minutes: number) => ({ tradeId, people, minutes })
  expect(presenceOf([line(1, 2, 90), line(2, 3, 200)], 1)).toMatchObject({ minutes: 90, people: 2 })
  expect(presenceOf([line(2, 3, 200)], 1)).toMatchObject({ minutes: 200, people: 3 })
  expect([presenceOf(null, 1), presenceOf([], null)]).toEqual([
    { minutes: 60, people: 1, skills: [] },
    { minutes: 60, people: 1, skills: [] },
  ])
})

test('what whoever goes has to be able to do is read of the same lines', () => {
  const line = (tradeId: number, ...skills: string[]) => ({ tradeId, people: 1, minutes: 30, skills })
  expect(presenceOf([line(1, 'Work at height', 'First aid'), line(2, 'Digging')], 1).skills).toEqual(['First aid', 'Work at height'])
  expect(presenceOf([line(1, 'Work at height'), line(2, 'work at HEIGHT', 'Digging')], 3).skills).toEqual(['Digging', 'Work at height'])
})

test('parts that come on a day that is known want a reason up to that day and none after it; the first fit waits for them', () => {
  const waits = { ...job, between: [{ code: 'coming' as const, sentence: '1 pc of Belt is expected on Mon 23 Nov.', after: '2026-11-23' }] }
  expect(codes(bram, span('10:00', '11:00'), waits)).toEqual(['coming'])
  expect(codes(bram, span('10:00', '11:00', '24'), waits)).toEqual([])
  expect(firstFit(waits, bram, 60, now, zone)!.at).toEqual(span('08:00', '09:00', '24'))
})

test('a skill nobody noted, and one whose certificate has ended by the day of the visit, want a reason; its last day is good', () => {
  const atHeight = { ...job, skills: ['Work at height'] }
  const till = (until: string | null) => ({ ...bram, skills: [{ name: 'work at height', until }] })
  const say = (who: BoardTechnician, day = '23') =>
    conflictsOf(atHeight, who, span('10:00', '11:00', day), now, zone).map(({ sentence, brief, weight }) => [brief, sentence, weight])
  expect(say(bram)).toEqual([['no Work at height', 'Work at height is no skill that is noted of Bram.', 'ask']])
  expect([say(till(null)), say(till('2026-11-23'))]).toEqual([[], []])
  expect(say(till('2026-11-23'), '24')).toEqual([['Work at height ended', 'What Bram has for Work at height ended on Mon 23 Nov.', 'ask']])
  // By the wall clock of the site: half past eleven at night in summer is the day before by UTC.
  const july = { from: new Date('2026-07-06T23:30:00Z'), until: new Date('2026-07-07T00:30:00Z') }
  expect(conflictsOf(atHeight, till('2026-07-06'), july, now, zone).map(({ code }) => code)).toContain('skill')
})

test('the day of a shift is that of the site, whatever site was asked about before', () => {
  const night = { from: new Date('2026-11-23T22:00:00Z'), until: new Date('2026-11-24T02:00:00Z') }
  const late = { ...bram, shifts: [night], visits: [] }
  const says = (at: [string, string], where: string) =>
    conflictsOf(job, late, { from: new Date(at[0]), until: new Date(at[1]) }, now, where)
      .filter(({ code }) => code === 'shift')
      .map(({ sentence }) => sentence)
  // Half past three at night by UTC is the same day in Auckland as the evening before, and another in Dublin.
  const after: [string, string] = ['2026-11-24T03:30:00Z', '2026-11-24T04:00:00Z']
  expect(says(after, 'Europe/Dublin')).toEqual(['Bram does not work that day.'])
  expect(says(after, 'Pacific/Auckland')).toEqual(['Bram works 11:00 to 15:00 that day.'])
  expect(says(after, 'Europe/Dublin')).toEqual(['Bram does not work that day.'])
  // The day on which clocks go back has an hour more, which belongs to it.
  const autumn = { ...late, shifts: [{ from: new Date('2026-10-25T00:30:00Z'), until: new Date('2026-10-25T05:00:00Z') }] }
  const evening = { from: new Date('2026-10-25T23:30:00Z'), until: new Date('2026-10-25T23:45:00Z') }
  expect(conflictsOf(job, autumn, evening, now, zone).map(({ sentence }) => sentence)).toContain('Bram works 01:30 to 05:00 that day.')
})

test('who is on call needs no reason, and is on leave all the same', () => {
  const called = { ...bram, onCall: [span('16:30', '23:59')] }
  const against = (who: BoardTechnician) => conflictsOf(job, who, span('20:00', '21:00'), now, zone)
  expect([isAsked(against(called)), isAsked(against(bram)), against({ ...called, away: [span('19:00', '22:00')] }).map(({ code }) => code)]).toEqual([
    false,
    true,
    ['away'],
  ])
})
