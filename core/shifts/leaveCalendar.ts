import ICAL from 'ical.js'
import { DateTime, IANAZone } from 'luxon'

/** A while somebody is away, as a calendar says it. */
export interface CalendarLeave {
  /** Of the entry, and of the day where it comes again and again: it finds the leave once more. */
  uid: string
  from: Date
  until: Date
  says: string
}
/** What a calendar file holds against the leave that was taken from calendars before. */
export interface LeaveChanges<Kept> {
  added: CalendarLeave[]
  changed: { leave: CalendarLeave; kept: Kept }[]
  same: number
  gone: Kept[]
  /** Over leave that is there already: taken by nobody. */
  bad: { leave: CalendarLeave; sentence: string }[]
}

const MOST_ENTRIES = 500

/**
 * Leave in an iCalendar file (RFC 5545): every VEVENT that is not cancelled nor free time (TRANSP), single or recurring,
 * as far as it reaches into the time asked for. A day without a clock is from midnight to midnight of the site.
 * @throws Error when it is no iCalendar
 */
export function leaveIn(text: string, zone: string, from: Date, until: Date): CalendarLeave[] {
  const calendar = new ICAL.Component(ICAL.parse(text) as never)
  if (calendar.name !== 'vcalendar') throw new Error('no vcalendar')
  for (const one of calendar.getAllSubcomponents('vtimezone')) {
    const timezone = new ICAL.Timezone(one)
    if (!ICAL.TimezoneService.has(timezone.tzid)) ICAL.TimezoneService.register(timezone)
  }
  const components = calendar.getAllSubcomponents('vevent')
  const isException = (one: ICAL.Component) => one.getFirstPropertyValue('recurrence-id') !== null
  const leaves: CalendarLeave[] = []
  const add = (uid: string, event: ICAL.Event, start: ICAL.Time, end: ICAL.Time): void => {
    const own = start.isDate ? zone : zoneOf(event.component, zone)
    const span = { from: instantOf(start, own), until: instantOf(end, own) }
    if (span.until > from && span.from < until && span.from < span.until) leaves.push({ uid, ...span, says: (event.summary ?? '').trim() })
  }
  for (const component of components.filter((one) => !isException(one))) {
    const event = new ICAL.Event(component)
    if (isOff(event)) continue
    for (const other of components) if (isException(other) && other.getFirstPropertyValue('uid') === event.uid) event.relateException(new ICAL.Event(other))
    if (!event.isRecurring()) add(event.uid, event, event.startDate, event.endDate)
    else {
      const each = event.iterator()
      for (let next = each.next(), n = 0; next && n < MOST_ENTRIES * 10 && instantOf(next, zone) < until; next = each.next(), n++) {
        const { item, startDate, endDate } = event.getOccurrenceDetails(next)
        if (!isOff(item)) add(`${event.uid} ${next.toICALString()}`, item, startDate, endDate)
      }
    }
    if (leaves.length > MOST_ENTRIES) throw new Error('too many entries')
  }
  return leaves.sort((a, b) => a.from.getTime() - b.from.getTime())
}

const isOff = (event: ICAL.Event) =>
  event.component.getFirstPropertyValue('status') === 'CANCELLED' || event.component.getFirstPropertyValue('transp') === 'TRANSPARENT'

/** By the zone the file names; a day, or a time without any zone, by that of the site. */
function instantOf(time: ICAL.Time, zone: string): Date {
  if (!time.isDate && time.zone !== ICAL.Timezone.localTimezone) return time.toJSDate()
  const { year, month, day, hour, minute, second } = time
  return DateTime.fromObject({ year, month, day, ...(time.isDate ? {} : { hour, minute, second }) }, { zone }).toJSDate()
}

/** The zone a time is named in, where the file does not say what that zone is and we know it all the same. */
function zoneOf(component: ICAL.Component, zone: string): string {
  const named = component.getFirstProperty('dtstart')?.getFirstParameter('tzid')
  return named && IANAZone.isValidZone(named) ? named : zone
}

interface Kept {
  /** What it was in a calendar; null when somebody wrote it. */
  uid: string | null
  from: Date
  until: Date
}

/** What a file changes: found again by its uid; what it does not say any more, and has not begun, is gone. */
export function leaveChanges<Row extends Kept>(leaves: readonly CalendarLeave[], kept: readonly Row[], now: Date): LeaveChanges<Row> {
  const changes: LeaveChanges<Row> = { added: [], changed: [], same: 0, gone: [], bad: [] }
  const uids = new Set(leaves.map(({ uid }) => uid))
  changes.gone = kept.filter(({ uid, from }) => uid !== null && !uids.has(uid) && from > now)
  const stands = kept.filter((one) => !changes.gone.includes(one) && (one.uid === null || !uids.has(one.uid)))
  const placed: { from: Date; until: Date }[] = [...stands]
  for (const leave of leaves) {
    const before = kept.find(({ uid }) => uid === leave.uid)
    const meets = placed.some((one) => one.from < leave.until && leave.from < one.until)
    if (meets) {
      changes.bad.push({ leave, sentence: 'They are on leave then already.' })
      continue
    }
    placed.push(leave)
    if (!before) changes.added.push(leave)
    else if (before.from.getTime() === leave.from.getTime() && before.until.getTime() === leave.until.getTime()) changes.same++
    else changes.changed.push({ leave, kept: before })
  }
  return changes
}
