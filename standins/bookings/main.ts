import { randomUUID } from 'node:crypto'
import type { AddressInfo } from 'node:net'
import express from 'express'
import ICAL from 'ical.js'
import { answerDav } from './dav'
import { occurrencesIn, PRODUCT } from './occurrences'
import { bookingsPage } from './page'
import { CalendarStore } from './store'

/** Rooms and their bookings: a page for people, CalDAV for programs, on loopback alone. */
const LARGEST = '1mb'
const store = new CalendarStore(process.env.EVRIX_DATA_DIR ?? '.')
const fixed = process.env.EVRIX_NOW ? new Date(process.env.EVRIX_NOW) : null
const began = Date.now()
const now = () => (fixed ? new Date(fixed.getTime() + Date.now() - began) : new Date())

const app = express()
app.disable('x-powered-by')
app.use((_request, response, next) => {
  response.setHeader('Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'")
  next()
})
app.get('/', (request, response) => {
  response.type('html').send(bookingsPage(store, request.query.room as string | undefined, now(), request.query.said as string | undefined))
})
app.post('/book', express.urlencoded({ extended: false }), (request, response) => {
  const { room = '', what = '', who = '', email = '', from = '', until = '' } = request.body as Record<string, string>
  response.redirect(303, `/?${new URLSearchParams({ room, said: book({ room, what, who, email, from, until }) })}`)
})
app.post('/cancel', express.urlencoded({ extended: false }), (request, response) => {
  const { room = '', file = '' } = request.body as Record<string, string>
  if (store.find(room, file)) store.remove(room, file)
  response.redirect(303, `/?${new URLSearchParams({ room, said: 'The booking is gone.' })}`)
})
app.all('/.well-known/caldav', (_request, response) => {
  response.redirect(308, '/')
})
app.use(express.text({ type: () => true, limit: LARGEST }), (request, response) => {
  answerDav(store, request, response, now())
})

/** Books a room by hand, unless somebody has it then. @returns what is said of it */
function book({ room, what, who, email, from, until }: Record<'room' | 'what' | 'who' | 'email' | 'from' | 'until', string>): string {
  const [start, end] = [new Date(`${from}:00Z`), new Date(`${until}:00Z`)]
  if (!store.has(room)) return 'There is no such room.'
  if (Number.isNaN(start.getTime()) || Number.isNaN(end.getTime()) || end <= start) return 'It has to end after it begins.'
  const taken = store.objects(room).flatMap(({ data }) => occurrencesIn(data, start, end).filter(({ busy }) => busy))[0]
  if (taken) return `The room is taken then: ${taken.summary}.`
  const calendar = new ICAL.Component('vcalendar')
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', PRODUCT)
  const event = new ICAL.Component('vevent')
  const uid = randomUUID()
  event.addPropertyWithValue('uid', uid)
  event.addPropertyWithValue('dtstamp', ICAL.Time.fromJSDate(now(), true))
  event.addPropertyWithValue('dtstart', ICAL.Time.fromJSDate(start, true))
  event.addPropertyWithValue('dtend', ICAL.Time.fromJSDate(end, true))
  event.addPropertyWithValue('summary', what || 'Booked')
  if (email) {
    const organizer = event.addPropertyWithValue('organizer', `mailto:${email}`)
    if (who) organizer.setParameter('cn', who)
  }
  calendar.addSubcomponent(event)
  store.put(room, `${uid}.ics`, calendar.toString())
  return 'The room is booked.'
}

const web = app.listen(Number(process.env.EVRIX_BOOKINGS_PORT ?? 0), '127.0.0.1', () => {
  process.stdout.write(`listening http://127.0.0.1:${(web.address() as AddressInfo).port}\n`)
})
// Ended by hand, with its terminal, or with whoever started it.
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP', 'disconnect'] as const)
  process.once(signal as 'SIGTERM', () => {
    web.close(() => process.exit(0))
    web.closeAllConnections()
  })
