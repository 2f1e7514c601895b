import Joi from 'joi'
import type { SiteWriting } from '#core/kit'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { correctedBody, finishBody, stopBody } from '#contract/field'
import type { CorrectedTime, JobDowntime, JobFinding, JobMeter, JobSheet, JobSignature, Talk } from '#contract/field'
import type { StepToDo } from '#contract/methods'
import type { AgreedWindow } from '#contract/orders'
import type { VisitAnswer, VisitResult } from '#core/dispatch'
import { PHOTO_STAGES } from '#core/field'
import type { PhotoStage } from '#core/field'
import { STINT_KINDS } from '#core/ledger'
import type { StintKind } from '#core/ledger'
import type { HazardLine, Permit } from '#core/methods'
import type { QuoteState } from '#core/quotes'

/** What a vendor sees through the pass: this one job and nothing else. */
export interface PassSheet {
  vendor: string
  site: string
  deskPhone: string
  number: string
  summary: string
  description: string
  place: string | null
  placeWithin: string | null
  placeAccess: string | null
  access: string | null
  contactName: string | null
  contactPhone: string | null
  /** The time agreed with whoever lets people in. */
  window: AgreedWindow | null
  noteForWorker: string | null
  asset: { tag: string; name: string; classCode: string | null } | null
  plannedStart: Instant
  plannedEnd: Instant
  visitState: string
  /** What they said to being sent; nothing yet. */
  answer: VisitAnswer | null
  answerNote: string | null
  proposed: { start: Instant; end: Instant } | null
  orderState: string
  running: { kind: StintKind; startAt: Instant } | null
  stints: { id: number; kind: StintKind; startAt: Instant; endAt: Instant | null; minutes: number | null }[]
  notes: { at: Instant; text: string }[]
  photos: { id: number; stage: PhotoStage | null }[]
  signatures: JobSignature[]
  /** Papers they added. */
  files: { id: number; name: string; bytes: number }[]
  hazards: HazardLine[]
  hazardsReadAt: Instant | null
  permits: { id: number; kind: Permit; number: string; fromAt: Instant; untilAt: Instant }[]
  /** What they found besides, and what they are to put right. */
  findings: JobFinding[]
  answers: JobFinding[]
  steps: StepToDo[]
  meters: JobMeter[]
  /** Of its asset: what lasts, and what was written down on this job. Who wrote it is not theirs to know. */
  downtimes: Omit<JobDowntime, 'who'>[]
  /** Whoever is there works alone, and checks in; null where nobody asks. */
  alone: JobSheet['alone']
  /** Who of theirs is there, as they said, and where they are called. */
  there: { name: string; phone: string | null } | null
  /** Parts they brought along. */
  brought: { id: number; name: string; quantity: string; unit: string }[]
  /** What they said it costs, before they began. */
  price: { netMinor: number; taxBp: number; note: string | null; state: QuoteState } | null
  /** Whether a price can still be named. */
  mayPrice: boolean
  talk: Talk
  /** Their other jobs that are open, each with a link of its own. */
  others: { number: string; summary: string; place: string | null; plannedStart: Instant; state: string; link: string }[]
  bill: {
    number: string
    taxBp: number
    lines: { description: string; quantity: string; unitPriceMinor: number; amountMinor: number }[]
    netMinor: number
    /** Whether it was sent as a file as well. */
    file: boolean
  } | null
  outcome: { symptom: string | null; cause: string | null; fix: string | null }
  expiresAt: Instant
  zone: string
  currency: string
  writing: SiteWriting
}

export const byToken = { token: field.token().required() }

export const readPass = endpoint<{ token: string }, PassSheet>({
  method: 'GET',
  path: '/api/pass/:token',
  says: 'The job a vendor pass opens.',
  may: 'vendor',
  input: Joi.object<{ token: string }, true>(byToken),
})

/** Each answer names the time it is given to, as it was read. */
interface Answered {
  token: string
  plannedStart: string
}
const answered = { ...byToken, plannedStart: field.instant().required() }

export const acceptVisit = endpoint<Answered, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/accept',
  says: 'Say that you come at the time planned.',
  may: 'vendor',
  input: Joi.object<Answered, true>(answered),
})

interface Proposed extends Answered {
  start: string
  end: string
  note?: string
}
export const proposeTime = endpoint<Proposed, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/propose',
  says: 'Propose another time; the one planned stands until the desk has taken it.',
  may: 'vendor',
  input: Joi.object<Proposed, true>({
    ...answered,
    start: field.instant().required(),
    end: field.instant().required(),
    note: field.line(300).allow(''),
  }),
})

export const declineVisit = endpoint<{ token: string; note: string }, { declined: true }>({
  method: 'POST',
  path: '/api/pass/:token/decline',
  says: 'Say that you do not come, and why; the pass ends with it.',
  may: 'vendor',
  input: Joi.object<{ token: string; note: string }, true>({ ...byToken, note: field.line(300).required() }),
})

export const switchVendorStint = endpoint<{ token: string; kind: StintKind }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/stints',
  says: 'Start the clock, or go on as another kind of time.',
  may: 'vendor',
  input: Joi.object<{ token: string; kind: StintKind }, true>({ ...byToken, kind: field.oneOf(STINT_KINDS).required() }),
})

export const stopVendorClock = endpoint<{ token: string; stoppedAt?: string }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/stop',
  says: 'Stop the clock; one that was forgotten, at the moment you stopped.',
  may: 'vendor',
  input: Joi.object<{ token: string; stoppedAt?: string }, true>({ ...byToken, ...stopBody }),
})

export const correctVendorStint = endpoint<{ token: string } & CorrectedTime, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/stints/:stintId',
  says: 'Put own time right on the same day, with a reason.',
  may: 'vendor',
  input: Joi.object<{ token: string } & CorrectedTime, true>({ ...byToken, ...correctedBody }),
})

export const addVendorNote = endpoint<{ token: string; text: string }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/notes',
  says: 'Add a note from the job.',
  may: 'vendor',
  input: Joi.object<{ token: string; text: string }, true>({ ...byToken, text: field.words(2000).min(1).required() }),
})

export const addVendorPhoto = endpoint<{ token: string; stage?: PhotoStage }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/photos',
  says: 'Add a photo from the job.',
  may: 'vendor',
  upload: true,
  input: Joi.object<{ token: string; stage?: PhotoStage }, true>({ ...byToken, stage: field.oneOf(PHOTO_STAGES) }),
})

interface FinishVendorJob {
  token: string
  result: VisitResult
  symptom?: string
  cause?: string
  fix?: string
  note?: string
  /** When it is best to come again, where another visit is needed. */
  returnAt?: Instant
}
export const finishVendorJob = endpoint<FinishVendorJob, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/finish',
  says: 'Leave the job: done, or why not.',
  may: 'vendor',
  input: Joi.object<FinishVendorJob, true>({ ...byToken, ...finishBody, returnAt: field.instant() }),
})

export interface EnterBill {
  token: string
  number: string
  taxBp: number
  lines: { description: string; quantity: string; unitPriceMinor: number }[]
  /** The bill as a file, sent ahead. */
  fileClaim?: string
}

export const enterBill = endpoint<EnterBill, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/bill',
  says: 'Enter the bill for this job, once.',
  may: 'vendor',
  input: Joi.object<EnterBill, true>({
    ...byToken,
    number: field.line(40).required(),
    taxBp: Joi.number().integer().min(0).max(10_000).required(),
    fileClaim: field.token(),
    lines: Joi.array()
      .min(1)
      .max(50)
      .required()
      .items(
        Joi.object({
          description: field.line(200).required(),
          quantity: field.quantity().required(),
          unitPriceMinor: field.minor().max(100_000_000).required(),
        }),
      ),
  }),
})
