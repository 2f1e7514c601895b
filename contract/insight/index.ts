import type { RegisterName } from '#core/registers'
import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { GaugeTarget, Instant } from '#contract/kit'
import type { TimelineEntry } from '#contract/requests'
import { STATIONS } from '#core/orders'
import type { OrderState, OwnMark, Station } from '#core/orders'

export interface StationCount {
  station: Station
  count: number
  onTime: number
  close: number
  past: number
}

export const readFlow = endpoint<object, { stations: StationCount[]; now: Instant }>({
  method: 'GET',
  path: '/api/flow',
  says: 'How much stands at each station, and how it stands against its targets.',
  may: 'desk.read',
})

/** A line of what a station needs: what it is, and what is to be said of it. */
export interface StationLine {
  type: 'request' | 'order'
  id: number
  number: string
  summary: string
}

export interface StationNews {
  /** The three that pass their target next; where the work is finished, the three that wait longest. */
  next: (StationLine & { target: GaugeTarget; waitsFor: string })[]
  /** What others changed since then of what stands here now, each record with what happened to it last. */
  changed: (StationLine & Pick<TimelineEntry, 'at' | 'who' | 'kind' | 'details'> & { times: number })[]
}

export const readStation = endpoint<{ station: Station; since: Instant }, StationNews>({
  method: 'GET',
  path: '/api/flow/:station',
  says: 'What is late next at a station, who it waits for, and what changed there since a moment.',
  may: 'desk.read',
  input: Joi.object<{ station: Station; since: Instant }, true>({ station: field.oneOf(STATIONS).required(), since: field.instant().required() }),
})

export interface Figures {
  byMonth: { month: string; requests: number; finished: number; finishedOnTime: number }[]
  byTrade: { trade: string; open: number; past: number }[]
  /** How many orders stand in each state of a site's own, under the state of ours. */
  byOwnState: { id: number; under: OrderState; name: string; mark: OwnMark; orders: number; past: number }[]
  repeats: { assetId: number; tag: string; name: string; repairs: number; warrantyUntil: string | null; costMinor: number }[]
  currency: string
}

export const readFigures = endpoint<object, Figures>({
  method: 'GET',
  path: '/api/figures',
  says: 'Rhythm, backlog and repeat failures.',
  may: 'insight.read',
})

/** One message of the live stream: what changed, not what it says; readers ask for what they show. */
export interface LiveChange {
  seq: number
  /** A kind of `core/events`; `field.taken` is all that technicians hear when a job was taken from them. */
  kind: string
  requestId: number | null
  orderId: number | null
  visitId: number | null
  /** A record of a register, and which one. */
  register: RegisterName | null
  recordId: number | null
  who: string
}

export const followLive = endpoint<{ after?: number }, LiveChange>({
  method: 'GET',
  path: '/api/live',
  says: 'Server-sent events of every change you may see; resumes from Last-Event-ID.',
  may: 'self.read',
  answers: 'stream',
  input: Joi.object<{ after?: number }, true>({ after: Joi.number().integer().min(0) }),
})

export interface OpenElsewhere {
  others: { name: string; since: Instant }[]
}

export const showPresence = endpoint<{ screen: string; type?: 'request' | 'order'; id?: number }, OpenElsewhere>({
  method: 'PATCH',
  path: '/api/presence',
  says: 'Say which Sheet a screen shows, or none; answers who else has it open.',
  may: 'desk.read',
  input: Joi.object<{ screen: string; type?: 'request' | 'order'; id?: number }, true>({
    screen: Joi.string()
      .pattern(/^[A-Za-z0-9-]{16,40}$/)
      .required(),
    type: field.oneOf(['request', 'order']),
    id: field.id(),
  }),
})
