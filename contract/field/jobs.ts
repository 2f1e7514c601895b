import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { AgreedWindow } from '#contract/orders'
import { VISIT_RESULTS } from '#core/dispatch'
import type { VisitResult } from '#core/dispatch'
import type { OutcomeLists } from '#core/field'
import type { FindingSeverity, FindingState } from '#core/findings'
import type { Point } from '#core/floorplans'
import type { ToBring } from '#core/jobsheets'
import { PHOTO_STAGES } from '#core/field'
import type { PhotoStage } from '#core/field'
import { byVisit, onJob } from './onJob'
import type { OnJob } from './onJob'
import type { JobEquipment, PlannedPart } from './materials'
import type { Talk } from './talk'
import { STINT_KINDS } from '#core/ledger'
import type { StintKind } from '#core/ledger'
import { PERMITS } from '#core/methods'
import type { HazardLine, Permit } from '#core/methods'
import type { OrderKind } from '#core/orders'
import type { Priority } from '#core/requests'

/** One job as a technician needs it. No money. */
export interface JobLine {
  visitId: number
  number: string
  summary: string
  placeCode: string | null
  placeName: string | null
  priority: Priority | null
  kind: string
  visitState: string
  orderState: string
  plannedStart: Instant
  plannedEnd: Instant
  /** How many pieces of equipment and tools are to be brought. */
  bring: number
}

/** A spot on the plan of a floor. */
export interface FindingPin {
  /** The place the plan is of. */
  planId: number
  /** Metres east and north. */
  at: Point
}

/** Something wrong that was found on a job. */
export interface JobFinding {
  /** Below zero while the server does not know it. */
  id: number
  /** What whoever recorded it calls it. */
  mark: string
  text: string
  severity: FindingSeverity
  fixedNow: boolean
  /** "GAN-102 Studio 2", or an asset by tag and name. */
  where: string | null
  pin: FindingPin | null
  photos: { id: number; fileId?: string }[]
  at: Instant
  who: string
  state: FindingState
  /** Whether who asks may take it back. */
  mayTakeBack: boolean
}

/** Who was on site signed for what was done. */
export interface JobSignature {
  name: string
  at: Instant
  /** The picture of it. */
  id: number
}

/** A counter on the asset of a job, or on a part of it. */
export interface JobMeter {
  id: number
  name: string
  unit: string
  /** At what number it is at nought again. */
  rollsAt: string | null
  /** Of the asset it is on. */
  tag: string
  /** What it showed, the newest first. */
  readings: { value: string; at: Instant; anew: boolean }[]
  /** What was read on this visit, last. */
  readHere: string | null
}

/** When the asset could not be used. */
export interface JobDowntime {
  mark: string
  fromAt: Instant
  /** Null while it cannot be used. */
  untilAt: Instant | null
  reason: string
  who: string
}

/** A job in my list. */
export interface JobRow extends JobLine {
  /** What my clock runs as on it, if it does. */
  running: StintKind | null
  /** In which building, on which floor. */
  within: string | null
  /** The time agreed with whoever lets people in. */
  window: AgreedWindow | null
  /** Minutes from the job before it on that day, or from where my day begins. */
  wayMinutes: number | null
}

export interface JobSheet extends JobLine {
  /** The same, by name. */
  toBring: ToBring[]
  description: string
  access: string | null
  placeWithin: string | null
  placeAccess: string | null
  contactName: string | null
  contactPhone: string | null
  /** The time agreed with whoever lets people in. */
  window: AgreedWindow | null
  noteForWorker: string | null
  asset: { tag: string; name: string; classCode: string | null } | null
  /** Of whoever it is that has the visit. */
  running: { kind: StintKind; startAt: Instant } | null
  stints: { id: number; kind: StintKind; startAt: Instant; endAt: Instant | null; minutes: number | null }[]
  /** What was taken for it and what came back, which is below nought. */
  parts: { id: number; partId?: number; code: string; name: string; quantity: string; unit: string }[]
  /** What is planned for it and not taken yet, and where it is kept for it. */
  planned: PlannedPart[]
  /** Asked for to be bought for it, and not here yet. */
  asked: { partId: number; name: string; quantity: string; unit: string }[]
  /** Booked for it, with somebody, or given back. */
  equipment: JobEquipment[]
  notes: { at: Instant; who: string; text: string }[]
  photos: { id: number; stage: PhotoStage | null }[]
  /** Who was there signed for it. */
  signatures: JobSignature[]
  /** What happened on this asset before, with cause and fix. */
  earlier: { number: string; finishedAt: Instant; symptom: string | null; cause: string | null; fix: string | null }[]
  outcome: { symptom: string | null; cause: string | null; fix: string | null }
  zone: string
  orderKind: OrderKind
  /** Orders of the group it leads that are not over. */
  openMembers: string[]
  hazards: HazardLine[]
  /** When I read them as they are now. */
  hazardsReadAt: Instant | null
  permits: { id: number; kind: Permit; number: string; fromAt: Instant; untilAt: Instant }[]
  /** Whoever is there works alone, and checks in; null where nobody asks. */
  alone: { everyMinutes: number; dueAt: Instant | null } | null
  /** What was found on it, by anybody who was there. */
  findings: JobFinding[]
  /** What it is to put right: what was found on other jobs. */
  answers: JobFinding[]
  meters: JobMeter[]
  /** Of its asset: what lasts, and what was written down on this job. */
  downtimes: JobDowntime[]
  /** What was said on it, as far as it is for our people. */
  talk: Talk
}

/** `next` are the jobs of the next day that has any, when none of today is left to do. */
interface WhichJobs {
  range?: 'today' | 'week' | 'month'
  /** One day instead, as "2026-11-23". */
  day?: string
}
export const listJobs = endpoint<WhichJobs, { rows: JobRow[]; zone: string; next: JobRow[] }>({
  method: 'GET',
  path: '/api/rounds',
  says: 'My jobs, in the order of the day.',
  may: 'field.work',
  input: Joi.object<WhichJobs, true>({ range: field.oneOf(['today', 'week', 'month']), day: field.day() }),
})

export const readJob = endpoint<{ visitId: number }, JobSheet>({
  method: 'GET',
  path: '/api/rounds/:visitId',
  says: 'One of my jobs.',
  may: 'field.work',
  input: Joi.object<{ visitId: number }, true>(byVisit),
})

const stintBody = { kind: field.oneOf(STINT_KINDS).required() }

export const switchStint = endpoint<OnJob & { kind: StintKind }, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/stints',
  says: 'Start the clock, or go on as another kind of time.',
  may: 'field.work',
  input: Joi.object<OnJob & { kind: StintKind }, true>({ ...onJob, ...stintBody }),
})

/** Whoever forgot the clock says when they stopped. */
export const stopBody = { stoppedAt: field.instant() }

export const stopClock = endpoint<OnJob & { stoppedAt?: string }, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/stop',
  says: 'Stop the clock; one that was forgotten, at the moment you stopped.',
  may: 'field.work',
  input: Joi.object<OnJob & { stoppedAt?: string }, true>({ ...onJob, ...stopBody }),
})

/** Own time as it really was, and why it was not recorded so. */
export interface CorrectedTime {
  stintId: number
  startAt: Instant
  endAt: Instant
  reason: string
}
export const correctedBody = {
  stintId: field.id().required(),
  startAt: field.instant().required(),
  endAt: field.instant().required(),
  reason: field.line(200).required().messages({ 'any.required': 'Say why.', 'string.empty': 'Say why.' }),
}
export const correctStint = endpoint<OnJob & CorrectedTime, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/stints/:stintId',
  says: 'Put own time right on the same day, with a reason.',
  may: 'field.work',
  input: Joi.object<OnJob & CorrectedTime, true>({ ...onJob, ...correctedBody }),
})

export const addNote = endpoint<OnJob & { text: string }, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/notes',
  says: 'Add a note from the job.',
  may: 'field.work',
  input: Joi.object<OnJob & { text: string }, true>({ ...onJob, text: field.words(2000).min(1).required() }),
})

/** What a photo shows: how it was found, or how it is left. */
interface Staged {
  stage?: PhotoStage
}
const staged = { stage: field.oneOf(PHOTO_STAGES) }

export const addJobPhoto = endpoint<OnJob & Staged, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/photos',
  says: 'Add a photo from the job.',
  may: 'field.work',
  upload: true,
  input: Joi.object<OnJob & Staged, true>({ ...onJob, ...staged }),
})

export interface FinishJob extends OnJob {
  result: VisitResult
  symptom?: string
  cause?: string
  fix?: string
  note?: string
  /** Members of the group it leads that are not over go on by themselves. */
  releaseMembers?: boolean
  /** When it is best to come again, where another visit is needed. */
  returnAt?: Instant
  /** The technician it is handed over to. */
  handTo?: number
  /** The part it waits for, where that is why it is left. */
  waitsFor?: { partId: number; quantity: string }
}

export const finishBody = {
  result: field.oneOf(VISIT_RESULTS).required(),
  symptom: field.words(80).allow(''),
  cause: field.words(80).allow(''),
  fix: field.words(80).allow(''),
  note: field.words(2000).allow(''),
}

export const finishJob = endpoint<FinishJob, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/finish',
  says: 'Leave the job: done, or why not.',
  may: 'field.work',
  input: Joi.object<FinishJob, true>({
    ...onJob,
    ...finishBody,
    releaseMembers: Joi.boolean(),
    returnAt: field.instant(),
    handTo: field.id(),
    waitsFor: Joi.object({ partId: field.id().required(), quantity: field.quantity().required() }),
  }),
})

export const readHazards = endpoint<OnJob & { read: string }, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/hazards',
  says: 'Say that I have read the hazards of a job.',
  may: 'field.work',
  /** `read` is what was read, so that what was added since is not taken for read. */
  input: Joi.object<OnJob & { read: string }, true>({ ...onJob, read: Joi.string().max(20_000).required() }),
})

interface HoldPermit extends OnJob {
  kind: Permit
  number: string
  fromAt: Instant
  untilAt: Instant
}
export const holdPermit = endpoint<HoldPermit, JobSheet>({
  method: 'POST',
  path: '/api/rounds/:visitId/permits',
  says: 'Write down a permit I hold for a job: its number, and from when to when.',
  may: 'field.work',
  input: Joi.object<HoldPermit, true>({
    ...onJob,
    kind: field.oneOf(PERMITS).required(),
    number: field.line(40).required(),
    fromAt: field.instant().required(),
    untilAt: field.instantAfter('fromAt', 'It ends after it begins.').required(),
  }),
})

export const readOutcomeLists = endpoint<{ classCode?: string }, OutcomeLists>({
  method: 'GET',
  path: '/api/outcome-lists',
  says: 'Symptoms, causes and fixes to choose from; those that fit the class of an asset, where it is named.',
  may: 'public',
  input: Joi.object<{ classCode?: string }, true>({ classCode: field.line(8) }),
})
