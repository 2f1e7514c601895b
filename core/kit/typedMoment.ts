/**
 * Days and times as people type them: "14:30", "tomorrow 9", "+3d", "fri 16:00", "24 Nov", "24.11. 9:15".
 * Everything is wall-clock time of one place, written "2026-11-24T09:15" (a day "2026-11-24"): which instant that is
 * belongs to whoever knows the zone.
 */
export interface TypedWhen {
  /** Wall-clock time now, where it is typed. */
  now: string
  /** The time of day when none is typed: "08:00". */
  usual?: string
  /** Whether 4/5 is the fifth of April, as some places write it. */
  monthFirst?: boolean
}

export type ReadMoment = { value: string | null; problem?: undefined } | { value?: undefined; problem: string }

const WEEKDAYS = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday']
const MONTHS = ['january', 'february', 'march', 'april', 'may', 'june', 'july', 'august', 'september', 'october', 'november', 'december']
const EXAMPLES = 'Type a day and a time, like “14:30”, “tomorrow 9”, “fri 16:00”, “+3d” or “24 Nov 9:15”.'
const DAY_EXAMPLES = 'Type a day, like “today”, “fri”, “+3d” or “24 Nov”.'

/** A day and a time; null for nothing. Seconds are not asked for: the minute is what people agree on. */
export function readMoment(text: string, { now, usual = '08:00', monthFirst = false }: TypedWhen): ReadMoment {
  const typed = plainly(text)
  if (!typed) return { value: null }
  const soon = /^([+-]) ?(\d{1,4}) ?(h|hours?|m|min|minutes?)$/.exec(typed)
  if (soon) {
    const minutes = Number(soon[1]! + soon[2]!) * (soon[3]!.startsWith('h') ? 60 : 1)
    return { value: wall(new Date(utc(now).getTime() + minutes * 60_000)) }
  }
  const alone = timeIn(typed)
  if (alone) return { value: `${now.slice(0, 10)}T${alone}` }
  const whole = dayIn(typed, now, monthFirst)
  if (whole) return { value: `${whole}T${usual}` }
  const [, dayTyped, timeTyped] = /^(.*?)(?:[ t]|, ?)(?:at )?(\d{1,2}(?:[:.]?\d{2})? ?(?:am|pm)?)$/.exec(typed) ?? []
  const [day, time] = dayTyped && timeTyped ? [dayIn(dayTyped, now, monthFirst), timeIn(timeTyped)] : [null, null]
  return day && time ? { value: `${day}T${time}` } : { problem: EXAMPLES }
}

/** A day alone; null for nothing. */
export function readDay(text: string, { now, monthFirst = false }: TypedWhen): ReadMoment {
  const typed = plainly(text)
  if (!typed) return { value: null }
  const day = dayIn(typed, now, monthFirst)
  return day ? { value: day } : { problem: DAY_EXAMPLES }
}

/** "14:30" of "1430", "14.30", "2:30 pm", "9"; null when it is no time of day. */
function timeIn(text: string): string | null {
  const [, hour, minute = '00', half] = /^(\d{1,2})(?:[:.]?(\d{2}))? ?(am|pm)?$/.exec(text.trim()) ?? []
  if (!hour) return null
  const hours = half ? (Number(hour) % 12) + (half === 'pm' ? 12 : 0) : Number(hour)
  if (hours > 23 || Number(minute) > 59 || (half && (Number(hour) < 1 || Number(hour) > 12))) return null
  return `${String(hours).padStart(2, '0')}:${minute}`
}

/** The day a text says, "2026-11-24"; null when it says none. A weekday is the next one, never today. */
function dayIn(text: string, now: string, monthFirst: boolean): string | null {
  const typed = text.trim().replace(/,$/, '')
  const today = utc(`${now.slice(0, 10)}T00:00`)
  const from = (days: number) => dayAfter(today, days)
  if (typed === 'today' || typed === 'now') return from(0)
  if (typed === 'tomorrow' || typed === 'tom') return from(1)
  if (typed === 'yesterday') return from(-1)
  const step = /^([+-]) ?(\d{1,4}) ?(d|days?|w|weeks?)$/.exec(typed)
  if (step) return from(Number(step[1]! + step[2]!) * (step[3]!.startsWith('w') ? 7 : 1))
  const weekday = typed.length > 2 ? WEEKDAYS.findIndex((name) => name.startsWith(typed.replace(/^(next|on) /, ''))) : -1
  if (weekday >= 0) return from((weekday - today.getUTCDay() + 7) % 7 || 7)
  const plain = typed.replace(/^(?:sun|mon|tue|wed|thu|fri|sat)[a-z]*,? (?=\S)/, '')
  if (plain !== typed) return dayIn(plain, now, monthFirst)
  const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(typed)
  if (iso) return dated(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const named = /^(?:([a-z]{3,9}) )?(\d{1,2})\.? ([a-z]{3,9})\.?(?:,? (\d{4}))?$/.exec(typed)
  const turned = /^([a-z]{3,9}) (\d{1,2})(?:, ?(\d{4}))?$/.exec(typed)
  if (named) return monthly(named[3]!, Number(named[2]), named[4], today)
  if (turned) return monthly(turned[1]!, Number(turned[2]), turned[3], today)
  const short = /^(\d{1,2})([./-])(\d{1,2})(?:\2(\d{4}|\d{2})?)?$/.exec(typed)
  if (!short) return null
  const [first, second] = [Number(short[1]), Number(short[3])]
  const turnedRound = monthFirst && short[2] === '/'
  return inYear(turnedRound ? first : second, turnedRound ? second : first, short[4], today)
}

function monthly(name: string, day: number, year: string | undefined, today: Date): string | null {
  const month = MONTHS.findIndex((one) => one.startsWith(name))
  return month < 0 ? null : inYear(month + 1, day, year, today)
}

/** Without a year, the one that lies nearer: half a year back at most. */
function inYear(month: number, day: number, year: string | undefined, today: Date): string | null {
  if (year) return dated(year.length === 2 ? 2000 + Number(year) : Number(year), month, day)
  const thisYear = today.getUTCFullYear()
  const found = dated(thisYear, month, day)
  if (!found) return dated(thisYear + 1, month, day)
  const days = (utc(`${found}T00:00`).getTime() - today.getTime()) / 86_400_000
  return (days < -183 ? dated(thisYear + 1, month, day) : null) ?? found
}

function dated(year: number, month: number, day: number): string | null {
  const date = new Date(Date.UTC(year, month - 1, day))
  return year >= 1900 && date.getUTCMonth() === month - 1 && date.getUTCDate() === day ? wall(date).slice(0, 10) : null
}

const utc = (wallTime: string) => new Date(`${wallTime.slice(0, 16)}:00Z`)
const wall = (date: Date) => date.toISOString().slice(0, 16)
const dayAfter = (day: Date, days: number) => wall(new Date(day.getTime() + days * 86_400_000)).slice(0, 10)

/** Small letters, one blank between words, and “p.m.” without its dots. */
const plainly = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .replace(/\b([ap])\.m\.?/g, '$1m')
