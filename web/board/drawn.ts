import type { Board, BoardSpan, BoardVisit } from '#contract/board'
import { lanesOf } from '#core/board'
import { waysOf } from '#core/travel'
import type { Way as WayOf } from '#core/travel'
import { PRIORITY_NAMES } from '#core/requests'
import { spanTime } from '#web/kit'

export const LANE = 34
/** Below these widths there is room for the number alone, for its digits, or for nothing. */
const PLACE_PX = 118
const NUMBER_PX = 64
const TINY_PX = 30
export type Place = (at: Date) => number

/** A stretch as it lies on its row, in percent. */
export type Across = { left: string; width: string }
export interface Bar {
  visit: BoardVisit
  style: Across & { top: string }
  classes: (string | null)[]
  /** Number and place, or the digits of the number where there is little room. */
  text: string
  isTiny: boolean
  gauge: { width: string; standing: string } | null
  /** Made when it is drawn: most of a week never is. */
  readonly says: string
}
export interface Way {
  key: number
  style: Across & { top: string }
  tight: boolean
  says: string
}
/** One row, ready to be drawn: reckoned once, however often it comes into sight. */
export interface Row {
  id: number | null
  key: string
  name: string
  says: string
  isPerson: boolean
  height: number
  shifts: Across[]
  onCall: Across[]
  away: Across[]
  bars: Bar[]
  ways: Way[]
}

export function acrossOn(place: Place, { from, until }: { from: string | Date; until: string | Date }): Across {
  const left = place(new Date(from)) * 100
  return { left: `${left}%`, width: `${Math.max(0, place(new Date(until)) * 100 - left)}%` }
}

/** All rows of the Board: people, of one team or of all, then vendors. */
export function rowsOf(board: Board, team: string | null, place: Place, trackPx: number): Row[] {
  const people = board.people.filter((one) => !team || one.team === team)
  const way = waysOf(board.ways)
  return [
    ...people.map((one) => ({
      ...visitsOn(place, trackPx, board.now, one.visits, one.away, way),
      ...{ id: one.id, key: `t${one.id}`, name: one.name, says: one.trades.join(', ') || one.team, isPerson: true },
      shifts: one.shifts.map((shift) => acrossOn(place, shift)),
      onCall: one.onCall.map((span) => acrossOn(place, span)),
      away: one.away.map((leave) => acrossOn(place, leave)),
    })),
    ...(team ? [] : board.vendors).map((one) => ({
      ...visitsOn(place, trackPx, board.now, one.visits, [], way, true),
      ...{ id: null, key: `v${one.id}`, name: one.name, says: 'vendor', isPerson: false, shifts: [], onCall: [], away: [] },
    })),
  ]
}

function visitsOn(
  place: Place,
  trackPx: number,
  now: string,
  all: readonly BoardVisit[],
  away: readonly BoardSpan[],
  way: WayOf,
  isVendor = false,
): Pick<Row, 'bars' | 'ways' | 'height'> {
  const visits = all.filter(({ from, until }) => place(new Date(until)) > 0 && place(new Date(from)) < 1)
  const lanes = lanesOf(visits.map(({ from, until }) => ({ from: new Date(from), until: new Date(until) })))
  const ways = visits.flatMap((visit, index): Way[] => {
    const next = visits.find((one) => one.from >= visit.until)
    const minutes = next ? way(visit.path, next.path) : 0
    if (!minutes || !next) return []
    const until = new Date(new Date(visit.until).getTime() + minutes * 60_000)
    const style = { ...acrossOn(place, { from: visit.until, until }), top: `${lanes[index]! * LANE + 16}px` }
    return [{ key: visit.id, style, tight: until > new Date(next.from), says: `${minutes} min on to ${next.number}` }]
  })
  const bars = visits.map((visit, index): Bar => {
    const gone = visit.state === 'planned' && away.some(({ from, until }) => from < visit.until && visit.from < until)
    const px = (place(new Date(visit.until)) - place(new Date(visit.from))) * trackPx
    let says: string | null = null
    return {
      visit,
      style: { ...acrossOn(place, visit), top: `${lanes[index]! * LANE + 4}px` },
      classes: [visit.state, visit.priority, visit.outside || gone ? 'astray' : null, waits(visit, isVendor) ? 'unanswered' : null],
      text: px < PLACE_PX ? numberWithin(px, visit.number) : [visit.number, visit.placeCode].filter(Boolean).join(' '),
      gauge: visit.state === 'ended' ? null : gaugeOf(visit, now),
      isTiny: px < TINY_PX,
      get says() {
        return (says ??= saysOf(visit, gone, isVendor))
      },
    }
  })
  return { bars, ways, height: Math.max(46, Math.max(1, ...lanes.map((lane) => lane + 1)) * LANE + 8) }
}

/** As much of a number as there is room for: all of it, its digits, or nothing. */
export function numberWithin(px: number, number: string): string {
  if (px < TINY_PX) return ''
  return px < NUMBER_PX ? number.replace(/^.*-/, '') : number
}

/** Time used against time promised, along the foot of a bar: too many for a component each. */
function gaugeOf({ target }: BoardVisit, now: string): { width: string; standing: string } {
  const [start, due, close, at] = [target.startAt, target.completionDueAt, target.closeAt, target.stoppedAt ?? now].map((one) => new Date(one).getTime())
  const used = (at! - start!) / Math.max(1, due! - start!)
  return { width: `${Math.min(100, Math.max(3, used * 100))}%`, standing: at! > due! ? 'past' : at! >= close! ? 'close' : 'on_time' }
}

/** A vendor was asked, and has not said that they come. */
const waits = ({ state, answer }: BoardVisit, isVendor: boolean) => isVendor && state === 'planned' && answer !== 'accepted'

const saysOf = (visit: BoardVisit, gone: boolean, isVendor: boolean) =>
  [
    // What is read of it comes first, so that it is called by what is seen.
    [visit.number, visit.placeCode].filter(Boolean).join(' '),
    visit.summary,
    spanTime(visit.from, visit.until),
    visit.priority && PRIORITY_NAMES[visit.priority],
    { planned: 'planned', on_site: 'on the job', ended: 'over' }[visit.state],
    visit.window ? `agreed for ${spanTime(visit.window.from, visit.window.until)}${visit.outside ? ', and planned outside of it' : ''}` : null,
    gone && 'planned while they are away',
    waits(visit, isVendor) && (visit.proposed ? `they propose ${spanTime(visit.proposed.start, visit.proposed.end)}` : 'not answered yet'),
  ]
    .filter(Boolean)
    .join(', ')
