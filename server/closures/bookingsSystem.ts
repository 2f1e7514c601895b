import ICAL from 'ical.js'
import { DateTime } from 'luxon'
import { createObject, davRequest, deleteObject, getBasicAuthHeaders, updateObject } from 'tsdav'
import type { SpaceBooking, Span } from '#core/closures'

/** So long is waited for the bookings system: somebody looks on. */
const PATIENCE_MS = 4_000

/** It does not answer, or not as it should; the message says how, for people. */
export class Silent extends Error {
  constructor(
    message: string,
    /** It was waited for in vain. */
    readonly late = false,
  ) {
    super(message)
  }
}

/** What a space has in the bookings system, or that it is not known there. */
export type Said = { said: 'bookings'; busy: Span[]; told: SpaceBooking[]; ours: Span[] } | { said: 'unknown' }

/** A closure as an iCalendar event, for good under one UID; each version of it replaces the one before. */
export interface ClosureEvent extends Span {
  uid: string
  version: number
  summary: string
  description: string
  location: string
  url: string
}

const stamp = (at: Date) => `${at.toISOString().slice(0, 19).replace(/[-:]/g, '')}Z`
const utc = (at: Date) => ICAL.Time.fromJSDate(at, true)

/** RFC 5545: one VEVENT, opaque, so that the space is busy. */
export function eventText({ uid, version, from, until, summary, description, location, url }: ClosureEvent, now: Date): string {
  const calendar = new ICAL.Component('vcalendar')
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', '-//Evrix//Closures//EN')
  const event = new ICAL.Component('vevent')
  for (const [name, value] of [
    ['uid', uid],
    ['dtstamp', utc(now)],
    ['dtstart', utc(from)],
    ['dtend', utc(until)],
    ['sequence', version - 1],
    ['summary', summary],
    ['description', description],
    ['location', location],
    ['url', url],
    ['status', 'CONFIRMED'],
    ['transp', 'OPAQUE'],
  ] as const)
    event.addPropertyWithValue(name, value)
  calendar.addSubcomponent(event)
  return `${calendar.toString()}\r\n`
}

/** The calendars of the spaces at the bookings system, each under the code of its space, by CalDAV (RFC 4791). */
export class BookingsSystem {
  private readonly home: string
  private readonly headers: Record<string, string>

  /** @param address of the folder of all calendars, a name and password in it where it wants them */
  constructor(address: string) {
    const url = new URL(address)
    const [username, password] = [decodeURIComponent(url.username), decodeURIComponent(url.password)]
    url.username = url.password = ''
    this.home = url.href
    this.headers = username ? { ...getBasicAuthHeaders({ username, password }) } : {}
  }

  private calendar(code: string): string {
    return `${this.home}${encodeURIComponent(code)}/`
  }
  private get fetchOptions(): RequestInit {
    return { signal: AbortSignal.timeout(PATIENCE_MS), redirect: 'follow' }
  }

  /**
   * What is booked in a space in a period. Who may see that it is taken, and not by whom, hears of busy time alone.
   * @param ours UIDs of closures of our own, which are no bookings
   * @param zone of the site: days and times without a zone are its own
   * @throws Silent when it does not answer
   */
  async bookings(code: string, period: Span, ours: ReadonlySet<string>, zone: string): Promise<Said> {
    const [busy, told] = await Promise.all([this.busy(code, period), this.told(code, period, zone)])
    if (busy === 'unknown' && told === 'unknown') return { said: 'unknown' }
    const all = told === 'unknown' ? [] : told
    const own = all.filter(({ uid }) => ours.has(uid))
    return {
      said: 'bookings',
      busy: busy === 'unknown' ? [] : busy,
      told: all.filter(({ uid }) => !ours.has(uid)).map(({ uid: _, ...booking }) => booking),
      ours: own.map(({ from, until }) => ({ from, until })),
    }
  }

  /** RFC 4791, 7.10. */
  private async busy(code: string, { from, until }: Span): Promise<Span[] | 'unknown'> {
    const body = `<?xml version="1.0" encoding="utf-8"?><c:free-busy-query xmlns:c="urn:ietf:params:xml:ns:caldav"><c:time-range start="${stamp(from)}" end="${stamp(until)}"/></c:free-busy-query>`
    const headers = { ...this.headers, 'Content-Type': 'application/xml; charset=utf-8', Depth: '1' }
    const response = await heard(() => fetch(this.calendar(code), { method: 'REPORT', headers, body, ...this.fetchOptions }))
    if (response.status === 404 || response.status === 410) return 'unknown'
    if (!response.ok) throw refusal(response.status)
    const answer = readText(await heard(() => response.text()))
    return answer
      .getAllSubcomponents('vfreebusy')
      .flatMap((one) => one.getAllProperties('freebusy'))
      .filter((one) => String(one.getFirstParameter('fbtype') ?? 'BUSY').toUpperCase() !== 'FREE')
      .flatMap((one) => one.getValues() as unknown as ICAL.Period[])
      .map((one) => ({ from: one.start.toJSDate(), until: one.getEnd().toJSDate() }))
  }

  /** RFC 4791, 7.8, each time of what comes round written out; nothing where it may not be seen. */
  private async told(code: string, { from, until }: Span, zone: string): Promise<(SpaceBooking & { uid: string })[] | 'unknown'> {
    const range = { _attributes: { start: stamp(from), end: stamp(until) } }
    const query = {
      _attributes: { 'xmlns:d': 'DAV:', 'xmlns:c': 'urn:ietf:params:xml:ns:caldav' },
      'd:prop': { 'd:getetag': {}, 'c:calendar-data': { 'c:expand': range } },
      'c:filter': {
        'c:comp-filter': { _attributes: { name: 'VCALENDAR' }, 'c:comp-filter': { _attributes: { name: 'VEVENT' }, 'c:time-range': range } },
      },
    }
    const responses = await heard(() =>
      davRequest({
        url: this.calendar(code),
        init: { method: 'REPORT', headers: { ...this.headers, Depth: '1' }, body: { 'c:calendar-query': query } },
        fetchOptions: this.fetchOptions,
      }),
    )
    if (responses.some(({ status }) => status === 404 || status === 410)) return 'unknown'
    if (responses.some(({ status }) => status === 403)) return []
    const failed = responses.find(({ ok, status }) => !ok && status >= 400)
    if (failed) throw refusal(failed.status)
    return responses.flatMap(({ props }) => (typeof props?.calendarData === 'string' ? bookingsOf(props.calendarData, zone) : []))
  }

  /**
   * Keeps a closure there, in place of what it was before.
   * @param etag of what is there already, null when it was not there yet
   * @throws Silent when it does not answer, or refuses
   */
  async keep(code: string, event: ClosureEvent, etag: string | null, now: Date): Promise<{ etag: string | null } | 'unknown'> {
    const url = `${this.calendar(code)}${event.uid}.ics`
    const data = eventText(event, now)
    const headers = { ...this.headers, 'Content-Type': 'text/calendar; charset=utf-8' }
    const first = await heard(() =>
      etag
        ? updateObject({ url, data, etag, headers, fetchOptions: this.fetchOptions })
        : createObject({ url, data, headers: { ...headers, 'If-None-Match': '*' }, fetchOptions: this.fetchOptions }),
    )
    // It is there though we did not hear so, or was changed or taken out there: it is ours, and is as we say.
    const response = first.status === 412 ? await heard(() => updateObject({ url, data, headers, fetchOptions: this.fetchOptions })) : first
    if (response.status === 404 || response.status === 409) return 'unknown'
    if (!response.ok) throw refusal(response.status)
    return { etag: response.headers.get('etag') }
  }

  /** Takes a closure out; it is as well where it is gone already. @throws Silent when it does not answer, or refuses */
  async remove(code: string, uid: string): Promise<void> {
    const url = `${this.calendar(code)}${uid}.ics`
    const response = await heard(() => deleteObject({ url, headers: this.headers, fetchOptions: this.fetchOptions }))
    if (!response.ok && response.status !== 404 && response.status !== 410) throw refusal(response.status)
  }
}

const refusal = (status: number) =>
  new Silent(status === 401 || status === 403 ? 'The bookings system does not let us in.' : `The bookings system answers with ${status}.`)

const isLate = (error: unknown) => error instanceof Error && error.name === 'TimeoutError'

/** Everything asked here may be asked twice: a line kept open from before may have been closed there meanwhile. @throws Silent */
async function heard<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask().catch((error: unknown) => {
      if (error instanceof Silent || isLate(error)) throw error
      return ask()
    })
  } catch (error) {
    if (error instanceof Silent) throw error
    throw isLate(error) ? new Silent('The bookings system takes too long to answer.', true) : new Silent('The bookings system cannot be reached.')
  }
}

function readText(text: string): ICAL.Component {
  try {
    return new ICAL.Component(ICAL.parse(text) as unknown[])
  } catch {
    throw new Silent('The bookings system answers with something else than a calendar.')
  }
}

/** A day alone, or a time of no zone, is one of the site (RFC 5545, 3.3.5). */
function instantOf(time: ICAL.Time, zone: string): Date {
  if (!time.isDate && time.zone !== ICAL.Timezone.localTimezone) return time.toJSDate()
  const { year, month, day, hour, minute, second } = time
  return DateTime.fromObject({ year, month, day, hour, minute, second }, { zone }).toJSDate()
}

function bookingsOf(text: string, zone: string): (SpaceBooking & { uid: string })[] {
  return readText(text)
    .getAllSubcomponents('vevent')
    .flatMap((component) => {
      const event = new ICAL.Event(component)
      const status = String(component.getFirstPropertyValue('status') ?? '').toUpperCase()
      const transparency = String(component.getFirstPropertyValue('transp') ?? '').toUpperCase()
      if (status === 'CANCELLED' || transparency === 'TRANSPARENT') return []
      const organizer = component.getFirstProperty('organizer')
      const name = organizer?.getFirstParameter('cn')
      const email =
        organizer
          ?.getFirstValue()
          ?.toString()
          .replace(/^mailto:/i, '') || null
      const [from, until] = [instantOf(event.startDate, zone), instantOf(event.endDate, zone)]
      return [{ uid: event.uid, key: `${event.uid} ${from.toISOString()}`, from, until, what: event.summary || null, who: name ? String(name) : email, email }]
    })
}
