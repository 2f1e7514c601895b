import ICAL from 'ical.js'

/** One time a booking takes place; one that comes round has several. */
export interface Occurrence {
  uid: string
  start: Date
  end: Date
  /** The same as they stand in the calendar: whole days stay days. */
  times: { start: ICAL.Time; end: ICAL.Time }
  summary: string
  organizer: { name: string | null; email: string | null }
  /** How it counts in free-busy: not at all where it is called off or leaves the room free. */
  busy: 'BUSY' | 'BUSY-TENTATIVE' | null
  component: ICAL.Component
  recurrenceId: ICAL.Time | null
}

/** So many rounds are looked at before a rule without an end is given up. */
const MOST_ROUNDS = 20_000

/** A calendar object as it stands in its file. @throws Error when it is no iCalendar */
export function readCalendar(data: string): ICAL.Component {
  const calendar = new ICAL.Component(ICAL.parse(data) as unknown[])
  for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(new ICAL.Timezone(zone))
  return calendar
}

/** Every time a calendar object takes place within a period (RFC 4791, 9.9); all of it where an end is open. */
export function occurrencesIn(data: string, from: Date | null, until: Date | null): Occurrence[] {
  const events = readCalendar(data).getAllSubcomponents('vevent')
  const masters = events.filter((event) => !event.hasProperty('recurrence-id'))
  const others = events.filter((event) => event.hasProperty('recurrence-id'))
  const found: Occurrence[] = []
  const add = (event: ICAL.Event, start: ICAL.Time, end: ICAL.Time, recurrenceId: ICAL.Time | null) => {
    const one = occurrenceOf(event, { start, end }, recurrenceId)
    if ((!until || one.start < until) && (!from || one.end > from || (one.end.getTime() === one.start.getTime() && one.start >= from))) found.push(one)
  }
  for (const master of masters) {
    const event = new ICAL.Event(master, { exceptions: others, strictExceptions: false })
    if (!event.isRecurring()) {
      add(event, event.startDate, event.endDate, null)
      continue
    }
    const moved = new Set(others.map((other) => (other.getFirstPropertyValue('recurrence-id') as ICAL.Time).toJSDate().getTime()))
    const rounds = event.iterator()
    for (let n = 0; n < MOST_ROUNDS; n++) {
      const next = rounds.next()
      if (!next || (until && next.toJSDate() >= until)) break
      if (moved.has(next.toJSDate().getTime())) continue
      const { startDate, endDate } = event.getOccurrenceDetails(next)
      add(event, startDate, endDate, next)
    }
  }
  // What was moved stands where it was moved to, wherever its round was.
  for (const other of others) {
    const event = new ICAL.Event(other)
    add(event, event.startDate, event.endDate, event.recurrenceId)
  }
  return found.sort((a, b) => a.start.getTime() - b.start.getTime())
}

function occurrenceOf(event: ICAL.Event, times: Occurrence['times'], recurrenceId: ICAL.Time | null): Occurrence {
  const { component } = event
  const organizer = component.getFirstProperty('organizer')
  const status = String(component.getFirstPropertyValue('status') ?? 'CONFIRMED').toUpperCase()
  const isFree = status === 'CANCELLED' || String(component.getFirstPropertyValue('transp') ?? 'OPAQUE').toUpperCase() === 'TRANSPARENT'
  const name = organizer?.getFirstParameter('cn')
  return {
    uid: event.uid,
    start: times.start.toJSDate(),
    end: times.end.toJSDate(),
    times,
    summary: event.summary,
    organizer: {
      name: name ? String(name) : null,
      email:
        organizer
          ?.getFirstValue()
          ?.toString()
          .replace(/^mailto:/i, '') ?? null,
    },
    busy: isFree ? null : status === 'TENTATIVE' ? 'BUSY-TENTATIVE' : 'BUSY',
    component,
    recurrenceId,
  }
}

const writtenOut = (time: ICAL.Time) => (time.isDate ? time : utc(time.toJSDate()))
const utc = (at: Date) => ICAL.Time.fromJSDate(at, true)

/** The same object with each time it takes place written out in UTC (RFC 4791, 9.6.5); null where none falls into the period. */
export function expanded(data: string, from: Date, until: Date): string | null {
  const all = occurrencesIn(data, from, until)
  if (!all.length) return null
  const calendar = new ICAL.Component('vcalendar')
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', PRODUCT)
  for (const { component, times, recurrenceId } of all) {
    const one = new ICAL.Component(JSON.parse(JSON.stringify(component.toJSON())) as unknown[])
    for (const name of ['dtstart', 'dtend', 'duration', 'rrule', 'rdate', 'exdate', 'recurrence-id']) one.removeAllProperties(name)
    one.addPropertyWithValue('dtstart', writtenOut(times.start))
    one.addPropertyWithValue('dtend', writtenOut(times.end))
    if (recurrenceId) one.addPropertyWithValue('recurrence-id', utc(recurrenceId.toJSDate()))
    calendar.addSubcomponent(one)
  }
  return calendar.toString()
}

export const PRODUCT = '-//Room bookings stand-in//EN'

/** When a calendar is busy, as VFREEBUSY (RFC 4791, 7.10). */
export function freeBusy(objects: readonly string[], from: Date, until: Date, now: Date): string {
  const calendar = new ICAL.Component('vcalendar')
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', PRODUCT)
  const answer = new ICAL.Component('vfreebusy')
  answer.addPropertyWithValue('dtstamp', utc(now))
  answer.addPropertyWithValue('dtstart', utc(from))
  answer.addPropertyWithValue('dtend', utc(until))
  for (const { busy, start, end } of objects.flatMap((data) => occurrencesIn(data, from, until))) {
    if (!busy) continue
    const property = new ICAL.Property('freebusy')
    property.setParameter('fbtype', busy)
    property.setValue(ICAL.Period.fromData({ start: utc(start < from ? from : start), end: utc(end > until ? until : end) }))
    answer.addProperty(property)
  }
  calendar.addSubcomponent(answer)
  return calendar.toString()
}

/** Why an object cannot be kept (RFC 4791, 4.1 and 5.3.2.1), as the name of what it breaks; its UID where it can. */
export function checked(data: string): { problem: string } | { uid: string } {
  let calendar: ICAL.Component
  try {
    calendar = readCalendar(data)
    if (calendar.name !== 'vcalendar') return { problem: 'valid-calendar-data' }
  } catch {
    return { problem: 'valid-calendar-data' }
  }
  const kinds = calendar.getAllSubcomponents().filter(({ name }) => name !== 'vtimezone')
  if (kinds.some(({ name }) => name !== 'vevent')) return { problem: 'supported-calendar-component' }
  const uids = new Set(kinds.map((one) => one.getFirstPropertyValue('uid')))
  const uid = [...uids][0]
  if (uids.size !== 1 || typeof uid !== 'string' || !uid || calendar.hasProperty('method')) return { problem: 'valid-calendar-object-resource' }
  return kinds.every((one) => one.hasProperty('dtstart')) ? { uid } : { problem: 'valid-calendar-data' }
}
