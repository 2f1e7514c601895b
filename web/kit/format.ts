import { spell, USUAL_WRITING } from '#core/kit'
import type { SiteWriting } from '#core/kit'

/** Instants are shown in the site's zone and as the site writes them, whatever the device says. */
let zone = 'Europe/Dublin'
let writing = USUAL_WRITING
let offset = 0

export function showTimesOf(site: { zone: string } & Partial<SiteWriting>): void {
  zone = site.zone
  writing = { ...USUAL_WRITING, ...site }
  made.clear()
}
/** How days and times are typed and picked here. */
export const writingHere = (): SiteWriting => writing

/** The server's clock: gauges and "3 min ago" go by it. @param agoMs how long ago the server said so */
export function setServerNow(now: string, agoMs = 0): void {
  offset = new Date(now).getTime() + agoMs - Date.now()
}

/** By how much the server’s clock is ahead of the device’s, in milliseconds; and as it was when that was last known. */
export const clockOffset = (): number => offset
export const setClockOffset = (known: number): void => void (offset = known)

export const serverNow = () => new Date(Date.now() + offset)

const hours = () => (writing.clock === 12 ? ({ hour: 'numeric', hourCycle: 'h12' } as const) : ({ hour: '2-digit', hourCycle: 'h23' } as const))
const TIME = () => ({ ...hours(), minute: '2-digit' }) as const
/** A writer of times takes a hundred times as long to make as to use. */
const made = new Map<string, Intl.DateTimeFormat>()
function formatter(options: Intl.DateTimeFormatOptions, locale = writing.locale): Intl.DateTimeFormat {
  const key = `${locale} ${JSON.stringify(options)}`
  const known = made.get(key) ?? new Intl.DateTimeFormat(locale, { timeZone: zone, ...options })
  made.set(key, known)
  return known
}
/** An instant as the wall clock of the site shows it, in figures that are always the same. */
const wallClock = () => formatter({ hourCycle: 'h23', year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit' }, 'en-GB')

/** "14:05" today, "Fri 14:05" this week, "3 Mar 14:05" otherwise. */
export function shortTime(at: string): string {
  const day = (date: Date) => formatter({ dateStyle: 'short' }).format(date)
  const when = new Date(at)
  const now = serverNow()
  const clock = formatter(TIME()).format(when)
  if (day(when) === day(now)) return clock
  if (Math.abs(when.getTime() - now.getTime()) < 6 * 86_400_000) return `${formatter({ weekday: 'short' }).format(when)} ${clock}`
  return `${formatter({ day: 'numeric', month: 'short' }).format(when)} ${clock}`
}

/** "Mon 23 Nov 2026, 14:05" */
export const longTime = (at: string) => formatter({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric', ...TIME() }).format(new Date(at))

/** "Mon 23 Nov, 14:05 to 16:00"; both days where it runs past midnight. */
export function spanTime(from: string, until: string): string {
  const written = (at: string, day: boolean) =>
    formatter(day ? { weekday: 'short', day: 'numeric', month: 'short', ...TIME() } : TIME())
      .format(new Date(at))
      .replace(/^(\p{L}+),/u, '$1')
  const dayOn = (at: string) => formatter({ dateStyle: 'short' }).format(new Date(at))
  return `${written(from, true)} to ${written(until, dayOn(from) !== dayOn(until))}`
}

/** "23 Nov 2026" for a date without a time. */
export const dayOf = (date: string) => plain({ day: 'numeric', month: 'short', year: 'numeric' }).format(new Date(`${date.slice(0, 10)}T00:00:00Z`))

export { spell }

/** "35 min", "3 h", "2 d": the largest unit only, for narrow places. */
export function spellShort(minutes: number): string {
  if (minutes < 90) return `${Math.round(minutes)} min`
  return minutes < 2880 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / 1440)} d`
}

/** The value a datetime-local field takes for an instant, in the site's zone. */
export function toLocalField(at: Date): string {
  const parts = Object.fromEntries(
    wallClock()
      .formatToParts(at)
      .map(({ type, value }) => [type, value]),
  )
  return `${parts.year}-${parts.month}-${parts.day}T${parts.hour}:${parts.minute}`
}

/** The instant a datetime-local field means in the site's zone. */
export function fromLocalField(text: string): Date {
  const asUtc = new Date(`${text}:00Z`)
  const shown = new Date(`${toLocalField(asUtc)}:00Z`)
  const first = new Date(asUtc.getTime() - (shown.getTime() - asUtc.getTime()))
  const again = new Date(`${toLocalField(first)}:00Z`)
  return new Date(first.getTime() - (again.getTime() - asUtc.getTime()))
}

const plain = (options: Intl.DateTimeFormatOptions) => formatter({ timeZone: 'UTC', ...options })

/** "Tue 24 Nov 2026" for the site's wall-clock day "2026-11-24". */
export const writtenDay = (day: string) =>
  plain({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })
    .format(new Date(`${day.slice(0, 10)}T00:00:00Z`))
    .replace(',', '')

/** "Tue 24 Nov 2026, 14:30" for the site's wall-clock time "2026-11-24T14:30". */
export const writtenMoment = (wall: string) => `${writtenDay(wall)}, ${plain(TIME()).format(new Date(`${wall.slice(0, 16)}:00Z`))}`

/** "16:30" of what was typed; null where it is no time. */
export function timeIn(text: string): string | null {
  const typed = /^([01]?\d|2[0-3])[:.]?([0-5]\d)$/.exec(text.trim())
  return typed && `${typed[1]!.padStart(2, '0')}:${typed[2]}`
}
