import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { CrewSign } from '#core/field'
import type { StintKind } from '#core/ledger'

/** Somebody in the field as they are now. */
export interface CrewRow {
  /** The technician’s; null for a vendor. */
  technicianId: number | null
  personId: number | null
  name: string
  /** What their clock runs as; null for a vendor who is there without one. */
  kind: StintKind | null
  /** Since when they are where they are; null for who is on no job. */
  since: Instant | null
  job: { orderId: number; number: string; summary: string; placeCode: string | null; placeName: string | null; plannedEnd: Instant } | null
  /** Their earliest visit that has not begun. */
  next: { orderId: number; number: string; plannedStart: Instant } | null
  heardAt: Instant | null
  signs: CrewSign[]
}

export const readCrewNow = endpoint<{ siteId?: number }, { rows: CrewRow[]; idle: number }>({
  method: 'GET',
  path: '/api/field/now',
  says: 'Who is where on which job since when, what runs over, who has not begun and who has not been heard of; `idle` are on no job and have none to begin.',
  may: 'desk.read',
  input: Joi.object<{ siteId?: number }, true>({ siteId: field.id() }),
})
