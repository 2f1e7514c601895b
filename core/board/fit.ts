import { DateTime } from 'luxon'
import type { LabourLine, ReadyLine } from '#core/methods'
import { skillsLacking, skillsOnce } from '#core/people'
import type { HeldSkill } from '#core/people'
import { isToCome, keepsTo, windowSays } from '#core/windows'
import type { Stretch } from './board'
import { minutesBetween } from './load'
import { travelMinutes } from '#core/travel'
import type { Way } from '#core/travel'

/** A job as far as its place on the Board is concerned. */
export interface BoardJob {
  tradeId: number | null
  trade: string | null
  /** What whoever goes has to be able to do besides. */
  skills: readonly string[]
  /** Of its place, "/1/7/31/". */
  path: string | null
  window: Stretch | null
  target: Date | null
  /** What stands between it and its dispatch; empty once somebody is planned, for it was weighed then. */
  between: readonly Pick<ReadyLine, 'code' | 'sentence' | 'after'>[]
}

/** A technician on the days that are looked at. */
export interface BoardTechnician {
  name: string
  tradeIds: readonly number[]
  skills: readonly HeldSkill[]
  shifts: readonly Stretch[]
  away: readonly Stretch[]
  /** When they are on call besides. */
  onCall?: readonly Stretch[]
  /** Where else they are planned or at work. */
  visits: readonly (Stretch & { number: string; path: string | null })[]
}

/**
 * Something that speaks against a job at a time with somebody: `never` cannot be overruled, `ask` wants a reason, `hint` is
 * only said.
 */
export interface Conflict {
  code: 'past' | 'trade' | 'skill' | 'shift' | 'away' | 'overlap' | 'travel' | 'window' | 'target' | ReadyLine['code']
  sentence: string
  /** The same in a few words, where it stands beside the name it is about. */
  brief: string
  weight: 'never' | 'ask' | 'hint'
}

/** How much what stands between an order and dispatch weighs; what waits for somebody else’s word is only said. */
const BETWEEN_WEIGHT: Record<ReadyLine['code'], Conflict['weight']> = {
  approval: 'never',
  outgrown: 'never',
  steps: 'ask',
  missing: 'ask',
  coming: 'ask',
  equipment: 'ask',
  space: 'ask',
  unkept: 'hint',
  warranty: 'hint',
  permit: 'hint',
  access: 'hint',
}

/**
 * What speaks against sending somebody to a job at a time, what weighs most first. Empty when it fits.
 * @param who null for a vendor, of whom only the time is judged
 * @param zone of the site: sentences tell its time
 * @param way how long it is from place to place; by the tree of places where nothing is known
 */
export function conflictsOf(job: BoardJob, who: BoardTechnician | null, at: Stretch, now: Date, zone: string, way: Way = travelMinutes): Conflict[] {
  const found: Conflict[] = []
  // Sentences are written when they are read: while something is dragged, few of many are.
  const say: Say = (code, weight, brief, sentence = () => brief) =>
    found.push({
      ...{ code, brief, weight },
      get sentence() {
        return sentence()
      },
    })
  if (at.until <= now) say('past', 'never', 'passed', () => 'That time has passed.')
  if (who) judgeWho(job, who, at, zone, way, say)
  const { window, target } = job
  if (window && isToCome(window, now) && !keepsTo(window, at.from))
    say('window', 'ask', 'agreed otherwise', () => `It was agreed for ${windowSays(window, zone)}.`)
  for (const { code, sentence, after } of job.between) if (!after || dayAt(at.from, zone) <= after) say(code, BETWEEN_WEIGHT[code], sentence)
  if (target && at.until > target)
    say(
      'target',
      'hint',
      'past target',
      () => `It would end after its target, ${DateTime.fromJSDate(target, { zone }).setLocale('en-IE').toFormat('ccc d LLL, HH:mm')}.`,
    )
  const order = ['never', 'ask', 'hint']
  return found.sort((a, b) => order.indexOf(a.weight) - order.indexOf(b.weight))
}
type Say = (code: Conflict['code'], weight: Conflict['weight'], brief: string, sentence?: () => string) => void

function judgeWho(job: BoardJob, who: BoardTechnician, at: Stretch, zone: string, wayOf: Way, say: Say): void {
  const clock = (time: Date) => DateTime.fromJSDate(time, { zone }).toFormat('HH:mm')
  const span = (stretch: Stretch) => `${clock(stretch.from)} to ${clock(stretch.until)}`
  if (job.tradeId !== null && !who.tradeIds.includes(job.tradeId))
    say('trade', 'ask', 'other trade', () => `${job.trade ?? 'What it takes'} is no trade of ${who.name}.`)
  for (const { name, ended } of lackedBy(who, job, at, zone))
    if (ended === null) say('skill', 'ask', `no ${name}`, () => `${name} is no skill that is noted of ${who.name}.`)
    else
      say(
        'skill',
        'ask',
        `${name} ended`,
        () => `What ${who.name} has for ${name} ended on ${DateTime.fromISO(ended).setLocale('en-IE').toFormat('ccc d LLL')}.`,
      )
  if (who.away.some((leave) => meets(leave, at))) say('away', 'ask', 'away', () => `${who.name} is away then.`)
  else if (!isCovered(at, who.shifts) && isCovered(at, [...who.shifts, ...(who.onCall ?? [])]))
    say('shift', 'hint', 'on call', () => `${who.name} is on call then.`)
  else if (!isCovered(at, who.shifts)) {
    const day = dayAround(at.from, zone)
    const that = who.shifts.filter(({ from }) => day.from <= from && from < day.until)
    const works = that.map(span).join(' and ')
    say('shift', 'ask', works ? `works ${works}` : 'day off', () => (works ? `${who.name} works ${works} that day.` : `${who.name} does not work that day.`))
  }
  for (const visit of who.visits)
    if (meets(visit, at)) say('overlap', 'ask', `at ${visit.number} then`, () => `${who.name} is at ${visit.number} then, ${span(visit)}.`)
  const before = latest(who.visits.filter(({ until }) => until <= at.from))
  const after = earliest(who.visits.filter(({ from }) => from >= at.until))
  const lacks = (way: number, left: number) => way > 0 && left < way
  if (before) {
    const [way, left] = [wayOf(before.path, job.path), minutesBetween(before.until, at.from)]
    if (lacks(way, left)) say('travel', 'ask', `${way} min from ${before.number}`, () => `It is ${way} min from ${before.number}, and ${left} are left for it.`)
  }
  if (after) {
    const [way, left] = [wayOf(job.path, after.path), minutesBetween(at.until, after.from)]
    if (lacks(way, left)) say('travel', 'ask', `${way} min on to ${after.number}`, () => `It is ${way} min on to ${after.number}, and ${left} are left for it.`)
  }
}

/** The day of an instant. The last one is kept: while something is dragged, it is asked for with every row. */
function dayAround(at: Date, zone: string): Stretch {
  if (lastDay && lastDay.zone === zone && lastDay.from <= at && at < lastDay.until) return lastDay
  const start = DateTime.fromJSDate(at, { zone }).startOf('day')
  lastDay = { zone, from: start.toJSDate(), until: start.plus({ days: 1 }).toJSDate() }
  return lastDay
}
let lastDay: (Stretch & { zone: string }) | null = null

const dayAt = (at: Date, zone: string): string => DateTime.fromJSDate(at, { zone }).toISODate()!
const lackedBy = (who: BoardTechnician, job: BoardJob, at: Stretch, zone: string) =>
  job.skills.length ? skillsLacking(who.skills, job.skills, dayAt(at.from, zone)) : []
const meets = (a: Stretch, b: Stretch) => a.from < b.until && b.from < a.until
const latest = <One extends Stretch>(all: One[]) => all.reduce<One | null>((best, one) => (best && best.until >= one.until ? best : one), null)
const earliest = <One extends Stretch>(all: One[]) => all.reduce<One | null>((best, one) => (best && best.from <= one.from ? best : one), null)

/** Whether shifts that follow one another without a gap hold the whole of it. */
function isCovered(at: Stretch, shifts: readonly Stretch[]): boolean {
  let reached = at.from.getTime()
  for (const { from, until } of [...shifts].sort((a, b) => a.from.getTime() - b.from.getTime()))
    if (from.getTime() <= reached) reached = Math.max(reached, until.getTime())
  return reached >= at.until.getTime()
}

/** Whether any of them has to be overruled with a reason, and none cannot be. */
export const isAsked = (conflicts: readonly Conflict[]): boolean => conflicts.some(({ weight }) => weight === 'ask')
export const isBarred = (conflicts: readonly Conflict[]): boolean => conflicts.some(({ weight }) => weight === 'never')

/** Starts are tried and steps are made by this. */
export const BOARD_STEP_MINUTES = 15

/**
 * The first time at which somebody can do a job without a conflict that wants a reason, within the shifts given.
 * @param minutes it takes, above nought
 * @param from the earliest start
 * @returns null when there is none
 */
export function firstFit(
  job: BoardJob,
  who: BoardTechnician,
  minutes: number,
  from: Date,
  zone: string,
  way: Way = travelMinutes,
): { at: Stretch; conflicts: Conflict[] } | null {
  const step = BOARD_STEP_MINUTES * 60_000
  for (const shift of [...who.shifts].sort((a, b) => a.from.getTime() - b.from.getTime())) {
    const begins = Math.max(shift.from.getTime(), from.getTime())
    for (let start = Math.ceil(begins / step) * step; start + minutes * 60_000 <= shift.until.getTime(); start += step) {
      const at = { from: new Date(start), until: new Date(start + minutes * 60_000) }
      const conflicts = conflictsOf(job, who, at, from, zone, way)
      if (!isAsked(conflicts.filter(({ code }) => !STANDING.has(code))) && !isBarred(conflicts)) return { at, conflicts }
    }
  }
  return null
}
/** What stays whatever the time and whoever goes: it does not decide between times. */
const STANDING = new Set<Conflict['code']>(['steps', 'missing', 'equipment', 'space'])

const UNPLANNED_MINUTES = 60

/**
 * How many go at once, for how long, and what they have to be able to do, by what is planned of a trade; of all there is
 * where it plans none of it.
 * @returns minutes above nought; an hour for one where nothing is planned
 */
export function presenceOf(labour: readonly LabourLine[] | null, tradeId: number | null): { minutes: number; people: number; skills: string[] } {
  const lines = labour ?? []
  const own = lines.filter((line) => line.tradeId === tradeId)
  const counted = own.length ? own : lines
  return {
    minutes: counted.reduce((most, line) => Math.max(most, line.minutes), 0) || UNPLANNED_MINUTES,
    people: counted.reduce((most, line) => Math.max(most, line.people), 1),
    skills: skillsOnce(counted.flatMap((line) => line.skills ?? [])),
  }
}

/** Who worked on an asset within so many months knows it (our own choice, no source). */
export const KNOWN_MONTHS = 12

export interface Fit {
  who: BoardTechnician
  fit: { at: Stretch; conflicts: Conflict[] }
  /** How often they worked on its asset within twelve months. */
  times: number
}

/**
 * Who fits best, in order: whoever ends before the target, then who knows the asset, then who begins first, then who has
 * least to do on that day. With the reasons, in words.
 */
export function rankFits<One extends Fit>(job: BoardJob, fits: readonly One[], zone: string, wayOf: Way = travelMinutes): (One & { because: string[] })[] {
  const judged = fits.map((one) => {
    const { at } = one.fit
    const day = DateTime.fromJSDate(at.from, { zone }).toISODate()
    const that = one.who.visits.filter(({ from }) => DateTime.fromJSDate(from, { zone }).toISODate() === day)
    const load = that.reduce((sum, { from, until }) => sum + minutesBetween(from, until), 0)
    const late = job.target !== null && at.until > job.target
    const before = latest(one.who.visits.filter(({ until }) => until <= at.from && DateTime.fromJSDate(until, { zone }).toISODate() === day))
    const way = before ? wayOf(before.path, job.path) : 0
    const because = [
      ...(late ? ['Only after its target.'] : []),
      ...(one.times ? [`Worked on its asset ${one.times === 1 ? 'once' : `${one.times} times`} within a year.`] : []),
      ...(before ? [way ? `${way} min from ${before.number} before it.` : `At the same place as ${before.number} before it.`] : []),
      load ? `${writtenHours(load)} planned that day.` : 'Nothing else planned that day.',
    ]
    return { one: { ...one, because }, late, load }
  })
  judged.sort(
    (a, b) =>
      Number(a.late) - Number(b.late) ||
      Number(b.one.times > 0) - Number(a.one.times > 0) ||
      a.one.fit.at.from.getTime() - b.one.fit.at.from.getTime() ||
      a.load - b.load ||
      a.one.who.name.localeCompare(b.one.who.name),
  )
  return judged.map(({ one }) => one)
}
const writtenHours = (minutes: number) =>
  [minutes >= 60 ? `${Math.floor(minutes / 60)} h` : '', minutes % 60 ? `${minutes % 60} min` : ''].filter(Boolean).join(' ')
