import { createHash } from 'node:crypto'
import ICAL from 'ical.js'
import { proposedTimes } from '#core/windows'
import { CalendarStore } from '../standins/bookings/store'
import type { SpaceSpec } from './places'
import type { Setting } from './simulate'
import type { World } from './world'

const HOUR_MS = 3_600_000

/** Times for access that were offered, chosen and agreed, and a space that is out of use for its work. Invented. */
export function makeAccess({ world, spaces, staff }: Setting): void {
  const { rows, now, calendar } = world
  const maren = staff.get('Maren Quill')!
  const at = (hours: number) => new Date(now.getTime() + hours * HOUR_MS)
  const proposed = proposedTimes(now, calendar)
  const times = proposed.map(({ from, until }) => ({ from: from.toISOString(), until: until.toISOString() }))
  const find = (summary: string, state: string) =>
    rows.orders.find((order) => order.siteId === 1 && order.summary === summary && order.state === state && !order.discardedAt)
  const asked = (order: (typeof rows.orders)[number], hours: number, more: object) => {
    const link = rows.requestOrders.find(({ orderId }) => orderId === order.id)
    const request = rows.requests.find(({ id }) => id === link?.requestId)
    if (!request?.reporterEmail || !request.reporterName) return null
    const offer = world.add('timeOffers', {
      siteId: 1,
      orderId: order.id!,
      name: request.reporterName,
      email: request.reporterEmail,
      times,
      note: null,
      state: 'open',
      askedAt: at(hours),
      askedBy: maren,
      askedByName: 'Maren Quill',
      // Nobody has this link: it was never mailed.
      nonce: createHash('sha256').update(`offer ${order.id}`).digest('hex').slice(0, 32),
      tokenHash: createHash('sha256').update(`no link ${order.id}`).digest('hex'),
      ...more,
    })
    const told = { siteId: 1, orderId: order.id!, actorId: maren, actorName: 'Maren Quill', fromState: null, toState: null }
    world.add('events', { ...told, at: at(hours), kind: 'window.offer', details: { offerId: offer.id, name: offer.name, times: times.length } })
    return offer
  }
  const waits = find('Door does not lock', 'draft')
  if (waits) asked(waits, -2, {})
  const chosen = find('Shower has no pressure', 'ready')
  const window = proposed[1]
  if (!chosen || !window) return
  const offer = asked(chosen, -20, { state: 'chosen', chosenFrom: window.from, answer: 'The key is with the porter', answeredAt: at(-17) })
  if (!offer) return
  Object.assign(chosen, { windowFrom: window.from, windowUntil: window.until, windowWith: offer.name })
  const span = { from: window.from.toISOString(), until: window.until.toISOString() }
  const of = { siteId: 1, orderId: chosen.id!, fromState: null, toState: null }
  world.add('events', {
    ...of,
    at: at(-17),
    kind: 'window.choose',
    actorId: null,
    actorName: offer.name,
    reason: 'The key is with the porter',
    details: { offerId: offer.id, name: offer.name, ...span },
  })
  const space = spaces.find(({ id }) => id === chosen.placeId)!
  const closure = world.add('closures', {
    siteId: 1,
    placeId: space.id,
    orderId: chosen.id!,
    fromAt: window.from,
    untilAt: window.until,
    reason: 'Shower tray comes out',
    state: 'kept',
    affects: [],
    uid: `closure-demo-${chosen.id}`,
    told: 'waiting',
    tryAt: now,
    createdBy: maren,
    createdByName: 'Maren Quill',
  })
  world.add('events', {
    ...of,
    at: at(-16),
    kind: 'closure.make',
    actorId: maren,
    actorName: 'Maren Quill',
    register: 'places',
    recordId: space.id,
    reason: 'Shower tray comes out',
    details: { closureId: closure.id, space: `${space.code} ${space.name}`, ...span, affects: 0 },
  })
}

/** Who books which rooms, in what rhythm: weekly on a day, or once so many days from now. Times are UTC. */
const BOOKED: { room: string; what: string; who: string; day?: number; days?: number; hour: number; hours: number }[] = [
  { room: 'TID-207', what: 'Plankton seminar', who: 'Mirela Okonjo', day: 2, hour: 9, hours: 2 },
  { room: 'TID-207', what: 'Group meeting, currents', who: 'Elias Farrow', day: 4, hour: 13, hours: 2 },
  { room: 'TID-208', what: 'Journal club', who: 'Una Hallorane', day: 3, hour: 12, hours: 1 },
  { room: 'LAN-201', what: 'School class, rock pools', who: 'Farida Galbraith', days: 1, hour: 10, hours: 3 },
  { room: 'LAN-202', what: 'School class, seabirds', who: 'Farida Galbraith', days: 2, hour: 10, hours: 3 },
  { room: 'LAN-105', what: 'Evening talk: the tide mill', who: 'Lucan Thackeray', days: 3, hour: 18, hours: 3 },
  { room: 'KEL-111', what: 'Budget round', who: 'Dara Lindgren', days: 1, hour: 9, hours: 2 },
  { room: 'KEL-211', what: 'Interviews', who: 'Wren Drummond', days: 4, hour: 9, hours: 6 },
]
const EMPTY = ['KEL-112', 'KEL-212', 'LAN-203']
const LODGED = /^GAN-\d0[1-9]$|^GAN-\d1[0-3]$/

/** The rooms of the bookings system with what is booked in them: seminar and class rooms, meeting rooms, lodgings. Invented. */
export function writeRoomBookings(folder: string, { now, calendar }: World, spaces: readonly Pick<SpaceSpec, 'code' | 'name'>[]): void {
  const store = new CalendarStore(folder)
  const rooms = new Set([...BOOKED.map(({ room }) => room), ...EMPTY])
  for (const { code, name } of spaces) if ((rooms.has(code) || LODGED.test(code)) && !store.has(code)) store.make(code, name)
  BOOKED.forEach(({ room, what, who, day, days, hour, hours }, index) => {
    if (!store.has(room)) return
    const start = dayOf(now, calendar.zone, day, days)
    const uid = `room-${index + 1}-demo`
    const email = `${who.toLowerCase().replace(/ /g, '.')}@skerry.example`
    const text = (clock: number) => `${start}T${String(clock).padStart(2, '0')}:00:00`
    const calendarText = new ICAL.Component('vcalendar')
    calendarText.addPropertyWithValue('version', '2.0')
    calendarText.addPropertyWithValue('prodid', '-//Room bookings//EN')
    const event = new ICAL.Component('vevent')
    event.addPropertyWithValue('uid', uid)
    event.addPropertyWithValue('dtstamp', ICAL.Time.fromJSDate(now, true))
    event.addPropertyWithValue('dtstart', ICAL.Time.fromDateTimeString(`${text(hour)}Z`))
    event.addPropertyWithValue('dtend', ICAL.Time.fromDateTimeString(`${text(hour + hours)}Z`))
    if (day !== undefined) event.addPropertyWithValue('rrule', ICAL.Recur.fromString('FREQ=WEEKLY;COUNT=26'))
    event.addPropertyWithValue('summary', what)
    event.addPropertyWithValue('organizer', `mailto:${email}`).setParameter('cn', who)
    calendarText.addSubcomponent(event)
    store.put(room, `${uid}.ics`, calendarText.toString())
  })
}

/** The next such day of the week (Monday is 1), or the day so many from now, as "2026-11-24". */
function dayOf(now: Date, zone: string, day: number | undefined, days = 0): string {
  const here = new Intl.DateTimeFormat('en-CA', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' })
  for (let n = 1; n <= 7 && day !== undefined; n++) {
    const date = new Date(now.getTime() + n * 24 * HOUR_MS)
    if (((date.getUTCDay() + 6) % 7) + 1 === day) return here.format(date)
  }
  return here.format(new Date(now.getTime() + days * 24 * HOUR_MS))
}
