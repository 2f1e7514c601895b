import type { BookingState } from '#core/bookings'
import type { FindingSeverity, FindingState } from '#core/findings'
import { chargedMinutes } from '#core/ledger'
import type { StintKind } from '#core/ledger'
import type { Permit } from '#core/methods'
import type { TalkAudience, Speaker } from '#core/talk'
import type { RecordedAct } from './acts'
import { checkInBy, isAlone } from './alone'
import type { PhotoStage } from './stages'

interface Stint {
  /** Below zero for one of the phone’s own, which the server does not know. */
  id: number
  kind: StintKind
  startAt: string
  endAt: string | null
  minutes: number | null
}

/** As much of a job as acts of the field change. */
export interface RecordedJob {
  visitId: number
  visitState: string
  orderState: string
  running: { kind: StintKind; startAt: string } | null
  stints: Stint[]
  parts: { id: number; partId?: number; code: string; name: string; quantity: string; unit: string }[]
  /** Asked for to be bought for it, and not here yet. */
  asked: { partId: number; name: string; quantity: string; unit: string }[]
  equipment: RecordedEquipment[]
  notes: { at: string; who: string; text: string }[]
  photos: { id: number; fileId?: string; stage: PhotoStage | null }[]
  signatures: { name: string; at: string; id: number; fileId?: string }[]
  outcome: { symptom: string | null; cause: string | null; fix: string | null }
  /** When whoever has the visit read its hazards as they are now. */
  hazardsReadAt: string | null
  permits: { id: number; kind: Permit; number: string; fromAt: string; untilAt: string }[]
  /** Whether whoever is there works alone, and by when they check in. */
  alone: { everyMinutes: number; dueAt: string | null } | null
  findings: RecordedFinding[]
  meters: RecordedMeter[]
  talk: { rows: RecordedSaid[] }
  downtimes: { mark: string; fromAt: string; untilAt: string | null; reason: string; who: string }[]
}
interface RecordedSaid {
  id: number
  mark: string | null
  speaker: Speaker
  audience: TalkAudience
  who: string
  text: string
  at: string
  photos: { id: number; fileId?: string }[]
  mine: boolean
}
interface RecordedEquipment {
  equipmentId: number
  tag: string
  name: string
  state: BookingState
  has: string | null
}
interface RecordedMeter {
  id: number
  readings: { value: string; at: string; anew: boolean }[]
  readHere: string | null
}
interface RecordedFinding {
  id: number
  mark: string
  text: string
  severity: FindingSeverity
  fixedNow: boolean
  where: string | null
  pin: { planId: number; at: [number, number] } | null
  photos: { id: number; fileId?: string }[]
  at: string
  who: string
  state: FindingState
  mayTakeBack: boolean
}

/**
 * A job as it stands with what was recorded and is not known to the server yet: what whoever recorded it goes on working
 * with. Minutes are those of the clock; what is charged, the server reckons.
 *
 * @param who wrote the notes among them
 */
export function withActs<Job extends RecordedJob>(job: Job, acts: readonly RecordedAct[], who: string): Job {
  return acts.filter(({ visitId }) => visitId === job.visitId).reduce((now, act) => withAct(now, act, -Date.parse(act.at), who), job)
}

function withAct<Job extends RecordedJob>(job: Job, act: RecordedAct, id: number, who: string): Job {
  switch (act.name) {
    case 'stint': {
      if (job.visitState === 'ended' || job.running?.kind === act.input.kind) return job
      const stint = { id, kind: act.input.kind, startAt: act.at, endAt: null, minutes: null }
      const stopped = stoppedAt(job, act.at)
      return {
        ...stopped,
        visitState: 'on_site',
        orderState: 'on_job',
        running: { kind: stint.kind, startAt: stint.startAt },
        alone: checked(job, isAlone(stint.kind) ? act.at : null),
        stints: [...stopped.stints, stint],
      }
    }
    case 'stop':
      return stoppedAt(job, act.input.stoppedAt ?? act.at)
    case 'correct':
      return { ...job, stints: job.stints.map((one) => (one.id === act.input.stintId ? ended({ ...one, startAt: act.input.startAt }, act.input.endAt) : one)) }
    case 'part': {
      const { code = '', name = '', unit = '' } = act.shown ?? {}
      return { ...job, parts: [...job.parts, { id, partId: act.input.partId, code, name, unit, quantity: act.input.quantity }] }
    }
    case 'partBack': {
      const { code = '', name = '', unit = '' } = act.shown ?? {}
      return { ...job, parts: [...job.parts, { id, partId: act.input.partId, code, name, unit, quantity: `-${act.input.quantity}` }] }
    }
    case 'partAsk': {
      const { name = '', unit = '' } = act.shown ?? {}
      return { ...job, asked: [...job.asked, { ...act.input, name, unit }] }
    }
    case 'equipmentOut': {
      const { equipmentId } = act.input
      const { code: tag = '', name = '' } = act.shown ?? {}
      const others = job.equipment.filter((one) => one.equipmentId !== equipmentId)
      return { ...job, equipment: [...others, { equipmentId, tag, name, state: 'out', has: who }] }
    }
    case 'equipmentBack': {
      const { equipmentId } = act.input
      return { ...job, equipment: job.equipment.map((one) => (one.equipmentId === equipmentId ? { ...one, state: 'back', has: null } : one)) }
    }
    case 'checkIn':
      return { ...job, alone: checked(job, act.at) }
    case 'note':
      return { ...job, notes: [...job.notes, { at: act.at, who, text: act.input.text }] }
    case 'hazards':
      return { ...job, hazardsReadAt: act.at }
    case 'permit':
      return { ...job, permits: [...job.permits, { id, ...act.input }] }
    case 'finding': {
      const { mark, text, severity, fixedNow, pin = null } = act.input
      const where = act.shown?.name ?? null
      const finding = {
        id,
        mark,
        text,
        severity,
        fixedNow,
        where,
        pin,
        photos: [],
        at: act.at,
        who,
        state: fixedNow ? 'fixed' : 'open',
        mayTakeBack: true,
      } as const
      return { ...job, findings: [...job.findings.filter((one) => one.mark !== mark), { ...finding, photos: [] }] }
    }
    case 'findingPhoto': {
      const photo = { id, fileId: act.fileId }
      return { ...job, findings: job.findings.map((one) => (one.mark === act.input.mark ? { ...one, photos: [...one.photos, photo] } : one)) }
    }
    case 'findingBack':
      return { ...job, findings: job.findings.filter(({ mark }) => mark !== act.input.mark) }
    case 'say': {
      const said = { id, ...act.input, speaker: 'crew', who, at: act.at, photos: [], mine: true } as const
      return { ...job, talk: { ...job.talk, rows: [...job.talk.rows.filter(({ mark }) => mark !== said.mark), { ...said, photos: [] }] } }
    }
    case 'sayPhoto': {
      const photo = { id, fileId: act.fileId }
      const rows = job.talk.rows.map((one) => (one.mark === act.input.mark ? { ...one, photos: [...one.photos, photo] } : one))
      return { ...job, talk: { ...job.talk, rows } }
    }
    case 'reading': {
      const { meterId, value, answer } = act.input
      const reading = { value, at: act.at, anew: answer === 'exchanged' }
      const read = <Meter extends RecordedMeter>(meter: Meter): Meter => ({ ...meter, readings: [reading, ...meter.readings], readHere: value })
      return { ...job, meters: job.meters.map((one) => (one.id === meterId ? read(one) : one)) }
    }
    case 'downtime': {
      const { mark, fromAt, untilAt = null, reason = '' } = act.input
      return { ...job, downtimes: [...job.downtimes.filter((one) => one.mark !== mark), { mark, fromAt, untilAt, reason, who }] }
    }
    case 'photo':
      return { ...job, photos: [...job.photos, { id, fileId: act.fileId, stage: act.input.stage ?? null }] }
    case 'signature':
      return { ...job, signatures: [...job.signatures, { id, name: act.input.name, at: act.at, fileId: act.fileId }] }
    case 'finish': {
      const { symptom, cause, fix } = act.input
      const outcome = { symptom: symptom || job.outcome.symptom, cause: cause || job.outcome.cause, fix: fix || job.outcome.fix }
      return { ...stoppedAt(job, act.at), visitState: 'ended', outcome }
    }
    default:
      return job
  }
}

const stoppedAt = <Job extends RecordedJob>(job: Job, at: string): Job => ({
  ...job,
  running: null,
  alone: checked(job, null),
  stints: job.stints.map((one) => (one.endAt === null ? ended(one, at) : one)),
})

/** By when they check in next, after they did; null where nobody is there. */
const checked = ({ alone }: RecordedJob, at: string | null): RecordedJob['alone'] =>
  alone && { ...alone, dueAt: at && checkInBy(new Date(at), alone.everyMinutes).toISOString() }

/** A clock that was set back meanwhile never makes a stint end before it began. */
function ended(stint: Stint, at: string): Stint {
  const endAt = at < stint.startAt ? stint.startAt : at
  return { ...stint, endAt, minutes: chargedMinutes(new Date(stint.startAt), new Date(endAt), 1) }
}

interface RecordedRow {
  visitId: number
  visitState: string
  orderState: string
  running: StintKind | null
}

/** Jobs of a list as they stand with what was recorded. */
export function rowsWithActs<Row extends RecordedRow>(rows: readonly Row[], acts: readonly RecordedAct[]): Row[] {
  return rows.map((row) =>
    acts
      .filter(({ visitId }) => visitId === row.visitId)
      .reduce((now, act) => {
        if (act.name === 'stint' && now.visitState !== 'ended') return { ...now, visitState: 'on_site', orderState: 'on_job', running: act.input.kind }
        if (act.name === 'stop') return { ...now, running: null }
        if (act.name === 'finish') return { ...now, running: null, visitState: 'ended' }
        return now
      }, row),
  )
}

/** On which other job of theirs the clock runs, by what is known and recorded. */
export const clockElsewhere = <Row extends RecordedRow>(rows: readonly Row[], visitId: number): Row | null =>
  rows.find((row) => row.running !== null && row.visitId !== visitId) ?? null
