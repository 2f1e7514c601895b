import Joi from 'joi'
import { onJob } from '#contract/field'
import type { JobSheet, OnJob } from '#contract/field'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'

interface Said {
  fromAt: Instant
  untilAt?: Instant
  reason?: string
}
const said = { fromAt: field.instant().required(), untilAt: field.instant(), reason: field.line(200).allow('') }
/** On a job it goes by a mark of its own. */
export interface JobDowntimeSaid extends Said {
  mark: string
}
export const jobDowntimeBody = { ...said, mark: field.mark().required() }

export const sayDowntime = endpoint<OnJob & JobDowntimeSaid, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/downtimes',
  says: 'Write down when the asset of my job could not be used; said again under the same mark, it is put right or ended.',
  may: 'field.work',
  input: Joi.object<OnJob & JobDowntimeSaid, true>({ ...onJob, ...jobDowntimeBody }),
})

export interface DowntimeRow {
  id: number
  fromAt: Instant
  /** Null while it cannot be used. */
  untilAt: Instant | null
  reason: string
  who: string
  order: { id: number; number: string } | null
}
export interface AssetDowntimes {
  /** The newest first. */
  rows: DowntimeRow[]
  /** Minutes within the last twelve months. */
  minutesOfYear: number
}
interface OfAsset {
  assetId: number
}
export const readDowntimes = endpoint<OfAsset, AssetDowntimes>({
  method: 'GET',
  path: '/api/assets/:assetId/downtimes',
  says: 'When an asset could not be used, and how long in twelve months.',
  may: 'desk.read',
  input: Joi.object<OfAsset, true>({ assetId: field.id().required() }),
})

export const addDowntime = endpoint<OfAsset & Said, AssetDowntimes>({
  method: 'POST',
  path: '/api/assets/:assetId/downtimes',
  says: 'Write down when an asset could not be used.',
  may: 'orders.edit',
  input: Joi.object<OfAsset & Said, true>({ assetId: field.id().required(), ...said }),
})

interface OfDowntime {
  id: number
}
export const endDowntime = endpoint<OfDowntime & { untilAt?: Instant }, AssetDowntimes>({
  method: 'POST',
  path: '/api/downtimes/:id/end',
  says: 'Say that an asset can be used again: now, or since when.',
  may: 'orders.edit',
  input: Joi.object<OfDowntime & { untilAt?: Instant }, true>({ id: field.id().required(), untilAt: field.instant() }),
})

export const dropDowntime = endpoint<OfDowntime, AssetDowntimes>({
  method: 'POST',
  path: '/api/downtimes/:id/take-back',
  says: 'Take back what was written down by mistake.',
  may: 'orders.edit',
  input: Joi.object<OfDowntime, true>({ id: field.id().required() }),
})
