import ICAL from 'ical.js'
import { VISIT_KIND_NAMES } from '#core/dispatch'
import type { FeedVisit } from './visitsIn'

const utc = (at: Date) => ICAL.Time.fromJSDate(at, true)

/**
 * Visits as a calendar that is read again and again (RFC 5545; its name and how often by RFC 7986, 5.1 and 5.7). Each has
 * the UID of its invitation. A vendor who has not said that they come is tentative.
 */
export function feedText(name: string, all: readonly FeedVisit[], now: Date, addressOf: ((orderId: number) => string) | null): string {
  const calendar = new ICAL.Component('vcalendar')
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', '-//Evrix//Feed//EN')
  calendar.addPropertyWithValue('method', 'PUBLISH')
  calendar.addPropertyWithValue('name', name)
  const often = calendar.addPropertyWithValue('refresh-interval', 'PT15M')
  often.setParameter('value', 'DURATION')
  for (const { visit, order, place, site, person, vendor } of all) {
    const event = new ICAL.Component('vevent')
    const who = person ?? vendor ?? ''
    for (const [property, value] of [
      ['uid', `visit-${visit.id}@${site.email.split('@').at(-1)}`],
      ['dtstamp', utc(now)],
      ['dtstart', utc(visit.startedAt ?? visit.plannedStart)],
      ['dtend', utc(endOf(visit))],
      ['sequence', visit.version],
      ['summary', `${order.number} ${order.summary}`],
      ['description', [`${who}, ${VISIT_KIND_NAMES[visit.kind].toLowerCase()}`, order.access, `${site.name}, ${site.phone}`].filter(Boolean).join('\n')],
      ['location', place ? `${place.code} ${place.name}` : ''],
      ['url', addressOf?.(order.id) ?? ''],
      ['status', visit.state === 'planned' && visit.vendorId !== null && visit.answer !== 'accepted' ? 'TENTATIVE' : 'CONFIRMED'],
      ['transp', 'OPAQUE'],
    ] as const)
      if (value !== '') event.addPropertyWithValue(property, value)
    calendar.addSubcomponent(event)
  }
  return `${calendar.toString()}\r\n`
}

/** One that runs, or ran, lasts a minute at least. */
function endOf({ plannedStart, plannedEnd, startedAt, endedAt }: FeedVisit['visit']): Date {
  const from = startedAt ?? plannedStart
  return new Date(Math.max((endedAt ?? plannedEnd).getTime(), from.getTime() + 60_000))
}
