import { DateTime } from 'luxon'
import type { RequestState } from './lifecycle'

/** The little a reporter is told about where their request stands. */
export interface Progress {
  step: 'received' | 'question' | 'looking' | 'scheduled' | 'working' | 'waiting' | 'done' | 'closed'
  sentence: string
}

/** What the reporter's words are made from: nothing internal goes in, so nothing internal comes out. */
export interface ProgressFacts {
  state: RequestState
  declineReason: string | null
  question: string | null
  /** The orders made of it; `finished` as core's orders say it. */
  orders: {
    state: string
    finished: boolean
    plannedStart: Date | null
    holdReason: string | null
    /** Somebody is on the way, and nobody has worked on it yet. */
    onTheWay?: boolean
    /** What was done, in plain words. */
    did?: string | null
  }[]
  zone: string
  now: Date
}

const HOLD_WORDS: Record<string, string> = {
  part: 'We are waiting for a part.',
  access: 'We are waiting until we can get in.',
  weather: 'We are waiting for the weather.',
}

/** Where the request stands, in the reporter's own words. */
export function progressOf(facts: ProgressFacts): Progress {
  if (facts.state === 'declined') return { step: 'closed', sentence: facts.declineReason ?? 'We will not take this on.' }
  if (facts.state === 'asked') return { step: 'question', sentence: facts.question ?? 'We have a question for you.' }
  if (facts.state === 'new') return { step: 'received', sentence: 'We have received it.' }
  const live = facts.orders.filter((order) => order.state !== 'cancelled')
  if (facts.orders.length && !live.length) return { step: 'closed', sentence: 'The work was called off. Call the desk if it is still needed.' }
  if (live.length && live.every((order) => order.finished)) {
    const did = live.flatMap((order) => order.did ?? [])
    return { step: 'done', sentence: ['It is done.', ...new Set(did)].join(' ') }
  }
  const begun = live.filter((order) => order.state === 'on_job')
  if (begun.length) return { step: 'working', sentence: begun.every((order) => order.onTheWay) ? 'Somebody is on the way.' : 'Somebody is working on it now.' }
  const held = live.find((order) => order.state === 'on_hold')
  if (held) return { step: 'waiting', sentence: HOLD_WORDS[held.holdReason ?? ''] ?? 'It is waiting. We have not forgotten it.' }
  const planned = live.filter((order) => order.state === 'dispatched')
  const start = planned
    .map((order) => order.plannedStart)
    .filter((at) => at !== null)
    .sort((a, b) => a.getTime() - b.getTime())[0]
  if (planned.length)
    return { step: 'scheduled', sentence: start ? `Scheduled for ${dayWords(start, facts.now, facts.zone)}.` : 'Scheduled. We are fixing the day.' }
  return { step: 'looking', sentence: 'We are looking at it.' }
}

/** The same for those who follow a request, or told the same later: what the desk and its reporter say to each other is theirs. */
export function progressForOthers(facts: Omit<ProgressFacts, 'declineReason' | 'question'>): Progress {
  return progressOf({ ...facts, declineReason: 'It was closed. Call the desk if it is still needed.', question: 'The desk has asked the reporter something.' })
}

/** "this afternoon", "Tuesday morning", "Tuesday 4 March, morning": as close as a reporter needs it. */
export function dayWords(at: Date, now: Date, zone: string): string {
  const local = DateTime.fromJSDate(at, { zone }).setLocale('en-IE')
  const today = DateTime.fromJSDate(now, { zone }).startOf('day')
  const part = local.hour < 12 ? 'morning' : local.hour < 17 ? 'afternoon' : 'evening'
  const days = Math.round(local.startOf('day').diff(today, 'days').days)
  if (days === 0) return `this ${part}`
  if (days === 1) return `tomorrow ${part}`
  if (days > 1 && days < 7) return `${local.toFormat('cccc')} ${part}`
  return `${local.toFormat('cccc d LLLL')}, ${part}`
}
