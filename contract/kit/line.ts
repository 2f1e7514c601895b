import type { Priority } from '#core/requests'
import type { Instant } from './endpoint'

/** The instants a gauge is drawn from. */
export interface GaugeTarget {
  clock: string
  startAt: Instant
  responseDueAt: Instant
  closeAt: Instant
  completionDueAt: Instant
  stoppedAt: Instant | null
  finishedAt: Instant | null
}

/** What queues and lists show of everything that has a target. */
export interface ListLine {
  id: number
  number: string
  version: number
  summary: string
  target: GaugeTarget
  priority: Priority | null
  place: string | null
  placeName: string | null
  asset: string | null
  category: string | null
  payer: string | null
  reference: string | null
  due: Instant
}
