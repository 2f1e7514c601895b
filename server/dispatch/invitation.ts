import ICAL from 'ical.js'

/** One visit, as it stands in the calendar of who goes. */
export interface Invitation {
  visitId: number
  /** Grows with every change: a calendar program takes what comes last, in whatever order mails arrive. */
  sequence: number
  from: Date
  until: Date
  summary: string
  description: string
  location: string
  url: string
  organizer: { name: string; email: string }
  attendee: { name: string; email: string }
}

const utc = (at: Date) => ICAL.Time.fromJSDate(at, true)

/**
 * What calendar programs take: REQUEST puts a visit in or moves it, CANCEL takes it out (RFC 5546, 3.2.2 and 3.2.5). Both
 * name the same thing by its UID; nobody has to answer.
 * @returns an iCalendar object of one VEVENT (RFC 5545)
 */
export function invitationText(method: 'REQUEST' | 'CANCEL', one: Invitation, now: Date): string {
  const calendar = new ICAL.Component('vcalendar')
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', '-//Evrix//Dispatch//EN')
  calendar.addPropertyWithValue('method', method)
  const event = new ICAL.Component('vevent')
  for (const [name, value] of [
    // Whoever works for several houses keeps their visits apart.
    ['uid', `visit-${one.visitId}@${one.organizer.email.split('@').at(-1)}`],
    ['dtstamp', utc(now)],
    ['dtstart', utc(one.from)],
    ['dtend', utc(one.until)],
    ['sequence', one.sequence],
    ['summary', one.summary],
    ['description', one.description],
    ['location', one.location],
    ['url', one.url],
    ['status', method === 'CANCEL' ? 'CANCELLED' : 'CONFIRMED'],
    ['transp', 'OPAQUE'],
  ] as const)
    if (value !== '') event.addPropertyWithValue(name, value)
  const organizer = event.addPropertyWithValue('organizer', `mailto:${one.organizer.email}`)
  organizer.setParameter('cn', one.organizer.name)
  const attendee = event.addPropertyWithValue('attendee', `mailto:${one.attendee.email}`)
  for (const [name, value] of [
    ['cn', one.attendee.name],
    ['role', 'REQ-PARTICIPANT'],
    ['partstat', 'ACCEPTED'],
    ['rsvp', 'FALSE'],
  ] as const)
    attendee.setParameter(name, value)
  calendar.addSubcomponent(event)
  return `${calendar.toString()}\r\n`
}
