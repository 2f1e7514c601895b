import { field } from '#contract/kit'
import type { Instant } from '#contract/kit'

export const byVisit = { visitId: field.id().required() }

/** Something done on one of my jobs. What was recorded without signal says when it happened; without that, it happens now. */
export interface OnJob {
  visitId: number
  happenedAt?: Instant
}
export const onJob = { ...byVisit, happenedAt: field.instant() }
