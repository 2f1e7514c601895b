import fc from 'fast-check'
import { DateTime } from 'luxon'
import { leaveChanges, leaveIn, leaveReasons, onCallBetween, rotaReasons, swapReasons } from '#core/shifts'
import type { Rota } from '#core/shifts'

const at = (iso: string) => new Date(iso)
const ZONE = 'Europe/Dublin'

test('why leave cannot be asked for', () => {
  const code = (from: string, until: string) => leaveReasons(from, until, '2026-11-23')[0]?.code ?? null
  expect([
    code('2026-11-23', '2026-11-23'),
    code('2026-12-24', '2027-01-02'),
    code('2026-12-24', '2026-12-23'),
    code('2026-11-22', '2026-11-24'),
    code('2026-11-23', '2027-11-24'),
    code('2029-01-01', '2029-01-02'),
  ]).toEqual([null, null, 'backwards', 'in_the_past', 'too_long', 'too_far'])
})

const rota: Rota = { memberIds: [1, 2, 3], startDay: '2026-10-19', turnDays: 7, handover: '08:00' }
const says = (from: string, until: string, swaps: Parameters<typeof onCallBetween>[1] = []) =>
  onCallBetween(rota, swaps, at(from), at(until), ZONE).map(
    (one) => `${one.technicianId}${one.swapped ? '*' : ''} ${DateTime.fromJSDate(one.from, { zone: ZONE }).toFormat('d LLL HH:mm')}`,
  )

test('turns follow each other, handed over at the same hour though the clocks change (2026-10-25, Europe/Dublin)', () => {
  expect(says('2026-10-12T00:00:00Z', '2026-11-10T00:00:00Z')).toEqual(['1 19 Oct 08:00', '2 26 Oct 08:00', '3 2 Nov 08:00', '1 9 Nov 08:00'])
  const [first, second] = onCallBetween(rota, [], at('2026-10-12T00:00:00Z'), at('2026-11-10T00:00:00Z'), ZONE)
  // In between the hour is put back: this week is an hour longer.
  expect([first!.from, first!.until].map((one) => one.toISOString())).toEqual(['2026-10-19T07:00:00.000Z', '2026-10-26T08:00:00.000Z'])
  expect((second!.until.getTime() - second!.from.getTime()) / 3_600_000).toBe(168)
})

test('somebody stands in for a while, also over a handover; what was said last holds', () => {
  const swap = { from: at('2026-10-24T12:00:00Z'), until: at('2026-10-27T12:00:00Z'), technicianId: 3 }
  expect(says('2026-10-19T07:00:00Z', '2026-11-02T08:00:00Z', [swap])).toEqual(['1 19 Oct 08:00', '3* 24 Oct 13:00', '2 27 Oct 12:00'])
  const again = { from: at('2026-10-25T12:00:00Z'), until: at('2026-10-26T12:00:00Z'), technicianId: 2 }
  expect(says('2026-10-19T07:00:00Z', '2026-11-02T08:00:00Z', [swap, again])).toEqual([
    '1 19 Oct 08:00',
    '3* 24 Oct 13:00',
    '2* 25 Oct 12:00',
    '3* 26 Oct 12:00',
    '2 27 Oct 12:00',
  ])
})

test('from the first handover on there is always exactly one, whatever is asked for', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 8 }),
      fc.integer({ min: 1, max: 28 }),
      fc.integer({ min: 0, max: 23 }),
      fc.integer({ min: 0, max: 20_000 }),
      fc.integer({ min: 1, max: 3_000 }),
      fc.array(fc.tuple(fc.integer({ min: 0, max: 20_000 }), fc.integer({ min: 1, max: 500 })), { maxLength: 4 }),
      (memberIds, turnDays, hour, fromHours, hours, swapped) => {
        const one: Rota = { memberIds, turnDays, startDay: '2024-03-01', handover: `${String(hour).padStart(2, '0')}:30` }
        const begin = DateTime.fromISO('2024-03-02T00:00', { zone: ZONE }).toMillis()
        const from = new Date(begin + fromHours * 3_600_000)
        const until = new Date(from.getTime() + hours * 3_600_000)
        const swaps = swapped.map(([start, long]) => ({
          from: new Date(begin + start * 3_600_000),
          until: new Date(begin + (start + long) * 3_600_000),
          technicianId: 99,
        }))
        const spans = onCallBetween(one, swaps, from, until, ZONE)
        expect(spans[0]!.from).toEqual(from)
        expect(spans.at(-1)!.until).toEqual(until)
        for (const [index, span] of spans.slice(1).entries()) expect(span.from).toEqual(spans[index]!.until)
      },
    ),
    { numRuns: 60 },
  )
  expect(onCallBetween({ ...rota, memberIds: [] }, [], at('2026-10-19T07:00:00Z'), at('2026-10-20T07:00:00Z'), ZONE)).toEqual([])
})

test('what is wrong with a rota, or with standing in', () => {
  expect(rotaReasons(rota)).toEqual([])
  expect(rotaReasons({ memberIds: Array.from({ length: 27 }, () => 1), startDay: 'soon', turnDays: 0, handover: '8' }).map(({ code }) => code)).toEqual([
    'too_many',
    'no_day',
    'turn_days',
    'no_clock',
  ])
  const swap = (hours: number) => swapReasons({ from: at('2026-11-23T08:00:00Z'), until: new Date(at('2026-11-23T08:00:00Z').getTime() + hours * 3_600_000) })
  expect([swap(24), swap(0), swap(93 * 24)].map(([one]) => one?.code ?? null)).toEqual([null, 'ends_before', 'too_long'])
})

const calendar = (...events: string[]) => ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Test//EN', ...events, 'END:VCALENDAR'].join('\r\n')
const vevent = (...lines: string[]) => ['BEGIN:VEVENT', 'DTSTAMP:20261101T000000Z', ...lines, 'END:VEVENT'].join('\r\n')
const read = (text: string) =>
  leaveIn(text, ZONE, at('2026-11-01T00:00:00Z'), at('2027-11-01T00:00:00Z')).map((one) => [one.uid, one.from.toISOString(), one.until.toISOString(), one.says])

test('days without a clock are those of the site; times are those of their zone', () => {
  const text = calendar(
    vevent('UID:a', 'DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:20270102', 'SUMMARY:Christmas'),
    vevent('UID:b', 'DTSTART:20261127T130000Z', 'DTEND:20261127T170000Z', 'SUMMARY:Dentist'),
    vevent('UID:c', 'DTSTART;TZID=Europe/Dublin:20270615T090000', 'DURATION:PT4H', 'SUMMARY:Course'),
    vevent('UID:n', 'DTSTART;TZID=America/New_York:20270615T190000', 'DURATION:PT1H', 'SUMMARY:Far'),
    // RFC 5545, 3.6.1: a day without an end is that day.
    vevent('UID:d', 'DTSTART;VALUE=DATE:20270701', 'SUMMARY:One day'),
    vevent('UID:off', 'DTSTART;VALUE=DATE:20261201', 'STATUS:CANCELLED', 'SUMMARY:Called off'),
    vevent('UID:free', 'DTSTART;VALUE=DATE:20261202', 'TRANSP:TRANSPARENT', 'SUMMARY:Birthday'),
    vevent('UID:old', 'DTSTART;VALUE=DATE:20200101', 'SUMMARY:Long ago'),
  )
  expect(read(text)).toEqual([
    ['b', '2026-11-27T13:00:00.000Z', '2026-11-27T17:00:00.000Z', 'Dentist'],
    ['a', '2026-12-24T00:00:00.000Z', '2027-01-02T00:00:00.000Z', 'Christmas'],
    ['c', '2027-06-15T08:00:00.000Z', '2027-06-15T12:00:00.000Z', 'Course'],
    ['n', '2027-06-15T23:00:00.000Z', '2027-06-16T00:00:00.000Z', 'Far'],
    ['d', '2027-06-30T23:00:00.000Z', '2027-07-01T23:00:00.000Z', 'One day'],
  ])
})

test('what comes again comes each time, but for days taken out or moved', () => {
  const text = calendar(
    vevent('UID:w', 'DTSTART;VALUE=DATE:20261106', 'RRULE:FREQ=WEEKLY;COUNT=4', 'EXDATE;VALUE=DATE:20261113', 'SUMMARY:Fridays'),
    vevent('UID:w', 'RECURRENCE-ID;VALUE=DATE:20261120', 'DTSTART;VALUE=DATE:20261119', 'SUMMARY:Thursday instead'),
  )
  expect(read(text).map(([uid, from, , what]) => [uid, from?.slice(0, 10), what])).toEqual([
    ['w 20261106', '2026-11-06', 'Fridays'],
    ['w 20261120', '2026-11-19', 'Thursday instead'],
    ['w 20261127', '2026-11-27', 'Fridays'],
  ])
})

test('what is no calendar is said; one that never ends is read as far as asked', () => {
  expect(() => read('Dear all, I am away.')).toThrow()
  expect(() => read('BEGIN:VCARD\r\nEND:VCARD')).toThrow()
  expect(read(calendar(vevent('UID:e', 'DTSTART;VALUE=DATE:20261102', 'RRULE:FREQ=MONTHLY', 'SUMMARY:Monthly')))).toHaveLength(12)
  expect(() => read(calendar(vevent('UID:e', 'DTSTART:20260101T000000Z', 'DURATION:PT1M', 'RRULE:FREQ=MINUTELY', 'SUMMARY:Always')))).not.toThrow()
})

test('a file read again changes nothing; what moved moves, what is not there any more goes unless it has begun', () => {
  const now = at('2026-11-23T10:30:00Z')
  const leave = (uid: string, day: string) => ({
    uid,
    from: at(`2026-${day}T00:00:00Z`),
    until: new Date(at(`2026-${day}T00:00:00Z`).getTime() + 86_400_000),
    says: '',
  })
  const file = [leave('a', '12-01'), leave('b', '12-05')]
  expect(leaveChanges(file, [], now)).toMatchObject({ added: file, changed: [], same: 0, gone: [], bad: [] })
  expect(leaveChanges(file, file, now)).toMatchObject({ added: [], changed: [], same: 2, gone: [], bad: [] })
  const kept = [leave('a', '12-02'), leave('x', '12-09'), leave('past', '11-02')]
  const changes = leaveChanges(file, kept, now)
  expect([changes.added.map(({ uid }) => uid), changes.changed.map(({ kept: { uid } }) => uid), changes.gone.map(({ uid }) => uid)]).toEqual([
    ['b'],
    ['a'],
    ['x'],
  ])
  const written = { ...leave('', '12-05'), uid: null }
  expect(leaveChanges(file, [written], now)).toMatchObject({ added: [file[0]], bad: [{ leave: file[1] }] })
})
