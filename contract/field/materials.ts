import type { Instant } from '#contract/kit'
import type { BookingState } from '#core/bookings'

/** A part, with where it lies. */
export interface FoundPart {
  id: number
  code: string
  name: string
  unit: string
  /** In all, as a decimal text. */
  inStock: string
  /** What is free of it, store by store: the own van first, then where most is. */
  lies: PartLying[]
}
export interface PartLying {
  storeId: number
  store: string
  /** Without what is kept for others. */
  free: string
  /** The van of whoever asks. */
  mine: boolean
}
/** What a job needs and has not taken yet. */
export interface PlannedPart {
  partId: number
  code: string
  name: string
  unit: string
  quantity: string
  /** Where it is kept for the job, and how much. */
  kept: { storeId: number; store: string; quantity: string }[]
}
export interface JobEquipment {
  equipmentId: number
  tag: string
  name: string
  state: BookingState
  /** Who has it. */
  has: string | null
  until?: Instant
}
