import type { FindingSeverity } from '#core/findings'
import type { StintKind } from '#core/ledger'
import type { ReadingAnswer } from '#core/meters'
import type { TalkAudience } from '#core/talk'
import type { PhotoStage } from './stages'
import type { Permit } from '#core/methods'

/** What a phone records on a job, by kind, with what is sent of it. */
export interface FieldActs {
  stint: { kind: StintKind }
  stop: { stoppedAt?: string }
  correct: { stintId: number; startAt: string; endAt: string; reason: string }
  part: { partId: number; quantity: string; storeId?: number }
  report: { mark: string; placeId?: number; assetId?: number; code?: string; text: string; asker?: string; askerEmail?: string }
  reportPhoto: { mark: string }
  say: { mark: string; audience: TalkAudience; text: string }
  sayPhoto: { mark: string }
  partBack: { partId: number; quantity: string; storeId?: number }
  partAsk: { partId: number; quantity: string }
  equipmentOut: { equipmentId: number }
  equipmentBack: { equipmentId: number; note?: string }
  note: { text: string }
  photo: { stage?: PhotoStage }
  signature: { name: string }
  checkIn: object
  finish: { result: string; symptom?: string; cause?: string; fix?: string; note?: string; returnAt?: string; handTo?: number }
  step: { id: number; version: number; value?: string; note?: string; leave?: boolean }
  stepUndo: { id: number; version: number }
  stepPhoto: { id: number }
  hazards: { read: string }
  permit: { kind: Permit; number: string; fromAt: string; untilAt: string }
  finding: {
    mark: string
    text: string
    severity: FindingSeverity
    fixedNow: boolean
    placeId?: number
    assetId?: number
    pin?: { planId: number; at: [number, number] }
    stepId?: number
  }
  findingPhoto: { mark: string }
  findingBack: { mark: string }
  reading: { meterId: number; value: string; answer?: ReadingAnswer }
  downtime: { mark: string; fromAt: string; untilAt?: string; reason?: string }
}
export type FieldActName = keyof FieldActs

/** One act as it was recorded: not known to the server yet, or just being sent. */
export type RecordedAct = {
  [Name in FieldActName]: {
    name: Name
    visitId: number
    /** When it happened. */
    at: string
    input: FieldActs[Name]
    /** What is shown of it besides: the part by its name, a finding by where it is. */
    shown?: { code?: string; name?: string; unit?: string }
    /** The file it carries, as the phone keeps it. */
    fileId?: string
  }
}[FieldActName]
