import ical from 'node-ical'
import type { VEvent } from 'node-ical'
import { calendarMultiGet, createDAVClient, createObject, deleteObject, freeBusyQuery, makeCalendar, updateObject } from 'tsdav'
import { House } from '../kit'

/**
 * The bookings system that ships with the product, held against two libraries from outside: tsdav as a calendar program
 * (RFC 4791), node-ical as a reader of what it answers (RFC 5545).
 */
let house: House
let home: string
beforeAll(async () => {
  house = await House.open('calendars', { bookings: true })
  home = house.calendars
})
afterAll(() => house?.close())

const lines = (...all: string[]) => ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Test//EN', ...all, 'END:VCALENDAR', ''].join('\r\n')
const event = (uid: string, ...more: string[]) => ['BEGIN:VEVENT', `UID:${uid}`, 'DTSTAMP:20261101T000000Z', ...more, 'END:VEVENT']
const put = (room: string, file: string, data: string, headers: Record<string, string> = {}) =>
  createObject({ url: `${home}${room}/${file}`, data, headers: { 'Content-Type': 'text/calendar; charset=utf-8', ...headers } })
const room = async (name: string, title = name) => {
  const [made] = await makeCalendar({ url: `${home}${name}/`, props: { 'd:displayname': title } })
  expect(made!.status).toBe(201)
  return name
}
const eventsIn = (text: string) => Object.values(ical.sync.parseICS(text)).filter((one): one is VEvent => one?.type === 'VEVENT')

test('a calendar program finds the rooms by itself, and what each is called', async () => {
  await room('T-1', 'Seminar room & library')
  const client = await createDAVClient({
    serverUrl: home.replace(/calendars\/$/, ''),
    credentials: { username: 'desk', password: 'x' },
    authMethod: 'Basic',
    defaultAccountType: 'caldav',
  })
  const calendars = await client.fetchCalendars()
  expect(calendars.find(({ url }) => url === `${home}T-1/`)).toMatchObject({ displayName: 'Seminar room & library', components: ['VEVENT'] })
})

test('what is put is there as it was put, is replaced by its etag alone, and is gone once deleted', async () => {
  const name = await room('T-2')
  const url = `${home}${name}/a.ics`
  const first = await put(name, 'a.ics', lines(...event('a@test', 'DTSTART:20261124T090000Z', 'DTEND:20261124T110000Z', 'SUMMARY:Talk\\, long')), {
    'If-None-Match': '*',
  })
  expect(first.status).toBe(201)
  expect((await put(name, 'a.ics', lines(...event('a@test', 'DTSTART:20261124T090000Z')), { 'If-None-Match': '*' })).status).toBe(412)
  const [got] = await calendarMultiGet({
    url: `${home}${name}/`,
    props: { 'd:getetag': {}, 'c:calendar-data': {} },
    objectUrls: [new URL(url).pathname],
    depth: '1',
  })
  expect([got!.status, got!.props!.getetag]).toEqual([207, first.headers.get('etag')])
  expect(eventsIn(got!.props!.calendarData as string)[0]).toMatchObject({ summary: 'Talk, long', start: new Date('2026-11-24T09:00:00Z') })
  const data = lines(...event('a@test', 'DTSTART:20261124T100000Z', 'DTEND:20261124T110000Z', 'SUMMARY:Talk'))
  const headers = { 'Content-Type': 'text/calendar' }
  expect((await updateObject({ url, data, etag: '"other"', headers })).status).toBe(412)
  expect((await updateObject({ url, data, etag: first.headers.get('etag')!, headers })).status).toBe(204)
  expect((await deleteObject({ url, etag: first.headers.get('etag')! })).status).toBe(412)
  expect((await deleteObject({ url })).status).toBe(204)
  expect((await deleteObject({ url })).status).toBe(404)
})

test('busy time is that of every round of what comes back, of exceptions where they went, and of nothing that is called off or leaves the room free', async () => {
  const name = await room('T-3')
  const weekly = lines(
    ...event(
      'w@test',
      'DTSTART;TZID=Europe/Dublin:20261020T100000',
      'DTEND;TZID=Europe/Dublin:20261020T110000',
      'RRULE:FREQ=WEEKLY;COUNT=6',
      'EXDATE;TZID=Europe/Dublin:20261110T100000',
      'SUMMARY:Weekly',
    ),
    ...event('w@test', 'RECURRENCE-ID;TZID=Europe/Dublin:20261117T100000', 'DTSTART:20261118T140000Z', 'DTEND:20261118T150000Z', 'SUMMARY:Moved'),
  )
  // A zone comes with its rules, as programs send it (RFC 5545, 3.6.5).
  const zone = [
    'BEGIN:VTIMEZONE',
    'TZID:Europe/Dublin',
    'BEGIN:STANDARD',
    'DTSTART:19961027T020000',
    'RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU',
    'TZOFFSETFROM:+0100',
    'TZOFFSETTO:+0000',
    'END:STANDARD',
    'BEGIN:DAYLIGHT',
    'DTSTART:19810329T010000',
    'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU',
    'TZOFFSETFROM:+0000',
    'TZOFFSETTO:+0100',
    'END:DAYLIGHT',
    'END:VTIMEZONE',
  ]
  const whole = weekly.replace('BEGIN:VEVENT', `${zone.join('\r\n')}\r\nBEGIN:VEVENT`)
  expect((await put(name, 'w.ics', whole)).status).toBe(201)
  expect((await put(name, 'c.ics', lines(...event('c@test', 'DTSTART:20261021T100000Z', 'DTEND:20261021T110000Z', 'STATUS:CANCELLED')))).status).toBe(201)
  expect((await put(name, 't.ics', lines(...event('t@test', 'DTSTART:20261022T100000Z', 'DURATION:PT90M', 'TRANSP:TRANSPARENT')))).status).toBe(201)
  expect((await put(name, 'm.ics', lines(...event('m@test', 'DTSTART:20261023T100000Z', 'DURATION:PT90M', 'STATUS:TENTATIVE')))).status).toBe(201)
  const timeRange = { start: '2026-10-20T09:30:00Z', end: '2026-12-31T00:00:00Z' }
  const { raw } = await freeBusyQuery({ url: `${home}${name}/`, timeRange, depth: '1' })
  const found = [...String(raw).matchAll(/^FREEBUSY;FBTYPE=([\w-]+):(\S+)/gm)].map((match) => `${match[1]} ${match[2]}`).sort()
  expect(found).toEqual([
    // What began before is busy from the beginning of what was asked; summer time ends on 25 October.
    'BUSY 20261020T093000Z/20261020T100000Z',
    'BUSY 20261027T100000Z/20261027T110000Z',
    'BUSY 20261103T100000Z/20261103T110000Z',
    'BUSY 20261118T140000Z/20261118T150000Z',
    'BUSY 20261124T100000Z/20261124T110000Z',
    'BUSY-TENTATIVE 20261023T100000Z/20261023T113000Z',
  ])
  // The rounds agree with those node-ical makes of the same text.
  const client = await createDAVClient({ serverUrl: home, credentials: { username: 'x', password: 'x' }, authMethod: 'Basic', defaultAccountType: 'caldav' })
  const objects = await client.fetchCalendarObjects({
    calendar: { url: `${home}${name}/` },
    timeRange: { start: '2026-11-16T00:00:00Z', end: '2026-11-26T00:00:00Z' },
    expand: true,
  })
  expect(objects).toHaveLength(1)
  const shown = eventsIn(String(objects[0]!.data).replaceAll('UID:w@test', () => `UID:w${Math.random()}`))
  expect(shown.map((one) => [one.summary, one.start.toISOString()]).sort()).toEqual([
    ['Moved', '2026-11-18T14:00:00.000Z'],
    ['Weekly', '2026-11-24T10:00:00.000Z'],
  ])
})

test.each([
  ['no calendar at all', 'hello', 'valid-calendar-data'],
  [
    'two bookings in one',
    lines(...event('1@test', 'DTSTART:20261124T090000Z'), ...event('2@test', 'DTSTART:20261124T090000Z')),
    'valid-calendar-object-resource',
  ],
  ['a task', lines('BEGIN:VTODO', 'UID:t@test', 'DTSTAMP:20261101T000000Z', 'END:VTODO'), 'supported-calendar-component'],
  ['an invitation', lines('METHOD:REQUEST', ...event('i@test', 'DTSTART:20261124T090000Z')), 'valid-calendar-object-resource'],
])('refused with the precondition it breaks (RFC 4791, 5.3.2.1): %s', async (_, data, condition) => {
  const name = 'T-4'
  await makeCalendar({ url: `${home}${name}/`, props: {} })
  const reply = await put(name, 'x.ics', data)
  expect([reply.status, await reply.text()]).toEqual([403, expect.stringContaining(condition)])
  expect((await put('NONE', 'x.ics', lines(...event('n@test', 'DTSTART:20261124T090000Z')))).status).toBe(409)
})

test('the same booking is not kept twice under two names', async () => {
  const name = await room('T-5')
  const data = lines(...event('same@test', 'DTSTART:20261124T090000Z'))
  expect((await put(name, 'one.ics', data)).status).toBe(201)
  const second = await put(name, 'two.ics', data)
  expect([second.status, await second.text()]).toEqual([403, expect.stringContaining(`/calendars/${name}/one.ics`)])
})

test('nothing is reached beside the calendars, and what was kept is there after a restart', async () => {
  for (const path of ['..%2f..%2fsecret', '%2e%2e/secret', 'T-1/..%2f..%2fx.ics', 'T-1/%2e%2e%2ftitle'])
    expect([path, (await fetch(`${home}${path}`)).status]).toEqual([path, 404])
  expect((await put('T-1', '..%2fescape.ics', lines(...event('e@test', 'DTSTART:20261124T090000Z')))).status).toBe(403)
  await put('T-1', 'stays.ics', lines(...event('s@test', 'DTSTART:20261124T090000Z')))
  await house.restartBookings()
  expect((await fetch(`${home}T-1/stays.ics`)).status).toBe(200)
})
