import Joi from 'joi'
import { endpoint } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { Station } from '#core/orders'

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

export interface Figures {
  byMonth: { month: string; requests: number; finished: number; finishedOnTime: number }[]
  byTrade: { trade: string; open: number; past: number }[]
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
  kind: string
  requestId: number | null
  orderId: number | null
  visitId: number | null
  who: string
}

export const followLive = endpoint<{ after?: number }, LiveChange>({
  method: 'GET',
  path: '/api/live',
  says: 'Server-sent events of every change you may see; resumes from Last-Event-ID.',
  may: 'self.read',
  answers: 'stream',
  input: Joi.object({ after: Joi.number().integer().min(0) }),
})
