import Joi from 'joi'
import { jobDowntimeBody } from '#contract/downtimes'
import type { JobDowntimeSaid } from '#contract/downtimes'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { jobReadingBody } from '#contract/meters'
import type { JobReading } from '#contract/meters'
import { FINDING_SEVERITIES } from '#core/findings'
import type { FindingSeverity } from '#core/findings'
import { PERMITS } from '#core/methods'
import type { Permit } from '#core/methods'
import { byToken } from './pass'
import type { PassSheet } from './pass'

interface ByPass {
  token: string
}
const may = 'vendor' as const

export const readPassHazards = endpoint<ByPass & { read: string }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/hazards',
  says: 'Say that the hazards of the job were read.',
  may,
  input: Joi.object<ByPass & { read: string }, true>({ ...byToken, read: Joi.string().max(20_000).required() }),
})

interface Held extends ByPass {
  kind: Permit
  number: string
  fromAt: Instant
  untilAt: Instant
}
export const holdPassPermit = endpoint<Held, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/permits',
  says: 'Write down a permit held for the job: its number, and from when to when.',
  may,
  input: Joi.object<Held, true>({
    ...byToken,
    kind: field.oneOf(PERMITS).required(),
    number: field.line(40).required(),
    fromAt: field.instant().required(),
    untilAt: field.instantAfter('fromAt', 'It ends after it begins.').required(),
  }),
})

export const signPass = endpoint<ByPass & { name: string }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/signatures',
  says: 'Keep the signature of who is on site.',
  may,
  upload: true,
  input: Joi.object<ByPass & { name: string }, true>({
    ...byToken,
    name: field.line(80).required().messages({ 'string.empty': 'Write who signs.', 'any.required': 'Write who signs.' }),
  }),
})

interface Found extends ByPass {
  mark: string
  text: string
  severity: FindingSeverity
  fixedNow: boolean
}
export const addPassFinding = endpoint<Found, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/findings',
  says: 'Record something else that is wrong, found on the job.',
  may,
  input: Joi.object<Found, true>({
    ...byToken,
    mark: field.mark().required(),
    text: field.words(2000).min(1).required(),
    severity: field.oneOf(FINDING_SEVERITIES).required(),
    fixedNow: Joi.boolean().required(),
  }),
})

interface Marked extends ByPass {
  mark: string
}
const marked = { ...byToken, mark: field.mark().required() }
export const addPassFindingPhoto = endpoint<Marked, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/findings/:mark/photos',
  says: 'Add a photo to what was found.',
  may,
  upload: true,
  input: Joi.object<Marked, true>(marked),
})
export const takeBackPassFinding = endpoint<Marked, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/findings/:mark/take-back',
  says: 'Take back what was found, while nobody has decided about it.',
  may,
  input: Joi.object<Marked, true>(marked),
})

interface OfStep extends ByPass {
  id: number
  version: number
}
const ofStep = { ...byToken, id: field.id().required(), version: field.version().required() }
interface DoStep extends OfStep {
  value?: string
  note?: string
  leave?: boolean
}
export const doPassStep = endpoint<DoStep, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/steps/:id/do',
  says: 'Do a step of the job that is nobody’s by name, or leave it out with a reason.',
  may,
  input: Joi.object<DoStep, true>({ ...ofStep, value: field.line(60).allow(''), note: field.words(500).allow(''), leave: Joi.boolean() }),
})
export const undoPassStep = endpoint<OfStep, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/steps/:id/undo',
  says: 'Take back what was done to a step.',
  may,
  input: Joi.object<OfStep, true>(ofStep),
})
export const addPassStepPhoto = endpoint<ByPass & { id: number }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/steps/:id/photos',
  says: 'Add the photo a step asks for.',
  may,
  upload: true,
  input: Joi.object<ByPass & { id: number }, true>({ ...byToken, id: field.id().required() }),
})

export const addPassReading = endpoint<ByPass & JobReading, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/readings',
  says: 'Write down what a meter of the asset of the job shows.',
  may,
  input: Joi.object<ByPass & JobReading, true>({ ...byToken, ...jobReadingBody }),
})
export const sayPassDowntime = endpoint<ByPass & JobDowntimeSaid, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/downtimes',
  says: 'Write down when the asset of the job could not be used; said again under the same mark, it is put right or ended.',
  may,
  input: Joi.object<ByPass & JobDowntimeSaid, true>({ ...byToken, ...jobDowntimeBody }),
})
export const checkInByPass = endpoint<ByPass, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/check-ins',
  says: 'Say that you are all right where you work alone.',
  may,
  input: Joi.object<ByPass, true>(byToken),
})

interface There extends ByPass {
  name: string
  phone?: string
}
export const sayWhoIsThere = endpoint<There, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/there',
  says: 'Say who of yours is there and where they are called, so that the desk calls them and not the firm.',
  may,
  input: Joi.object<There, true>({ ...byToken, name: field.line(80).required(), phone: field.line(40).allow('') }),
})

export const readPassFile = endpoint<ByPass & { fileId: number; small?: boolean }, Blob>({
  method: 'GET',
  path: '/api/pass/:token/files/:fileId',
  says: 'A photo or paper of the job that the pass shows.',
  may,
  answers: 'file',
  input: Joi.object<ByPass & { fileId: number; small?: boolean }, true>({ ...byToken, fileId: field.id().required(), small: Joi.boolean() }),
})

export const addPassFile = endpoint<ByPass & { name?: string }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/files',
  says: 'Add a paper to the job: a test report, a delivery note.',
  may,
  upload: true,
  input: Joi.object<ByPass & { name?: string }, true>({ ...byToken, name: field.line(160).allow('') }),
})

interface Brought extends ByPass {
  name: string
  quantity: string
  unit: string
}
export const bringPart = endpoint<Brought, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/parts',
  says: 'Write down a part brought along and built in.',
  may,
  input: Joi.object<Brought, true>({
    ...byToken,
    name: field.line(120).required(),
    quantity: field.quantity().required().messages({ 'string.pattern.base': 'Write a quantity above zero, with at most three decimals.' }),
    unit: field.line(16).required(),
  }),
})
export const dropPart = endpoint<ByPass & { id: number }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/parts/:id/drop',
  says: 'Take out a part that was written down by mistake.',
  may,
  input: Joi.object<ByPass & { id: number }, true>({ ...byToken, id: field.id().required() }),
})

interface Price extends ByPass {
  netMinor: number
  taxBp: number
  note?: string
}
export const namePassPrice = endpoint<Price, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/price',
  says: 'Say what it costs before work begins; said again, it takes the place of what was said.',
  may,
  input: Joi.object<Price, true>({
    ...byToken,
    netMinor: field.minor().min(1).max(1_000_000_000).required(),
    taxBp: Joi.number().integer().min(0).max(10_000).required(),
    note: field.words(1000).allow(''),
  }),
})

export const sayByPass = endpoint<Marked & { text: string }, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/talk',
  says: 'Write to the desk.',
  may,
  input: Joi.object<Marked & { text: string }, true>({
    ...marked,
    text: field.words(2000).min(1).required().messages({ 'any.required': 'Write something first.', 'string.empty': 'Write something first.' }),
  }),
})
export const addPassSaidPhoto = endpoint<Marked, PassSheet>({
  method: 'POST',
  path: '/api/pass/:token/talk/:mark/photos',
  says: 'Add a photo to what was written.',
  may,
  upload: true,
  input: Joi.object<Marked, true>(marked),
})

/** A bill as a file, and what could be read of it: to be looked at and sent, or written beside it. */
export interface BillFile {
  claim: string
  name: string
  /** What an electronic invoice says; null for a picture of paper. */
  read: { number: string; taxBp: number; lines: { description: string; quantity: string; unitPriceMinor: number }[] } | null
}
export const readBillFile = endpoint<ByPass & { name?: string }, BillFile>({
  method: 'POST',
  path: '/api/pass/:token/bill-file',
  says: 'Send the bill as a file: an electronic invoice (UBL 2.1, EN 16931) is read into lines, a PDF is kept beside what is written. Nothing is entered yet.',
  may,
  upload: true,
  input: Joi.object<ByPass & { name?: string }, true>({ ...byToken, name: field.line(160).allow('') }),
})

export const renewPass = endpoint<ByPass, { sentTo: string }>({
  method: 'POST',
  path: '/api/pass/:token/renew',
  says: 'Ask for a new link once this one has ended: it is mailed to the address of the vendor, never shown here.',
  may,
  input: Joi.object<ByPass, true>(byToken),
})
