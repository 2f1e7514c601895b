import { sayDowntime } from '#contract/downtimes'
import * as contract from '#contract/field'
import { addFinding, addFindingPhoto, addSentFindingPhoto, takeBackFinding } from '#contract/findings'
import type { Carried, JobSheet } from '#contract/field'
import { addReading } from '#contract/meters'
import { addReportPhoto, addSentReportPhoto, reportHere } from '#contract/spots'
import { addSentStepPhoto, addStepPhoto, doStep, listJobSteps, undoStep } from '#contract/methods'
import type { StepToDo } from '#contract/methods'
import { addSaidPhoto, addSentSaidPhoto, sayOnJob } from '#contract/talk'
import { PHOTO_STAGE_NAMES, rowsWithActs, stepsWithActs, withActs } from '#core/field'
import type { RecordedAct } from '#core/field'
import { VISIT_RESULT_NAMES } from '#core/dispatch'
import { FINDING_SEVERITY_NAMES } from '#core/findings'
import type { VisitResult } from '#core/dispatch'
import { STINT_KIND_NAMES } from '#core/ledger'
import { PERMIT_NAMES } from '#core/methods'
import type { Endpoint } from '#contract/kit'
import type { ActKinds, Copies } from '#web/devices'
import { address, shortTime, useSession } from '#web/kit'

type Sent = { body: RecordedAct }
const whoIsHere = () => useSession().self?.name ?? ''

/** Acts on a job answer with how it stands then; the list, which was read before, stands as it was recorded. */
async function job({ body }: Sent, answer: JobSheet | null, { read }: Copies) {
  const [list, page] = [address(contract.carryJobs, {}), address(contract.readJob, { visitId: body.visitId })]
  const [carried, before] = [await read<Carried>(list), answer ?? (await read<JobSheet>(page))]
  const now = answer ?? (before && withActs(before, [body], whoIsHere()))
  return [...(now ? [{ name: page, value: now }] : []), ...(carried ? [{ name: list, value: { ...carried, rows: rowsWithActs(carried.rows, [body]) } }] : [])]
}

/** Acts on a step answer with it alone. */
async function step({ body }: Sent, answer: StepToDo | null, { read }: Copies) {
  const name = address(listJobSteps, { visitId: body.visitId })
  const steps = await read<{ rows: StepToDo[] }>(name)
  if (!steps) return []
  // What waited for it does not wait any more; taken back, it does again, which the next reading tells.
  const recorded = stepsWithActs(steps.rows, [body], whoIsHere())
  return [{ name, value: { rows: recorded.map((one) => (one.id === answer?.id ? answer : one)) } }]
}
const onJob = { keeps: job as never }
const onStep = { keeps: step as never }
/** What is reported on the way changes nothing that is carried. */
const onNothing = { keeps: () => Promise.resolve([]) }
const to = (endpoint: unknown) => endpoint as Endpoint<never, unknown>

/** Everything that is recorded on a phone: where it goes, and how it is said. */
export const FIELD_ACTS: ActKinds = {
  stint: {
    endpoint: to(contract.switchStint),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input }) => `Clock set to ${STINT_KIND_NAMES[input.kind].toLowerCase()}`,
    ...onJob,
  },
  stop: {
    endpoint: to(contract.stopClock),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input }) => (input.stoppedAt ? `Clock stopped as of ${shortTime(input.stoppedAt)}` : 'Clock stopped'),
    ...onJob,
  },
  correct: {
    endpoint: to(contract.correctStint),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input }) => `Time put right: ${shortTime(input.startAt)} to ${shortTime(input.endAt)}, ${input.reason}`,
    ...onJob,
  },
  part: {
    endpoint: to(contract.usePart),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input, shown }) => `Part used: ${input.quantity} ${shown?.unit ?? ''} ${shown?.name ?? ''}`,
    ...onJob,
  },
  say: {
    endpoint: to(sayOnJob),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { audience, text } }) => `Message ${audience === 'reporter' ? 'to the reporter' : 'to the desk'}: ${text}`,
    ...onJob,
  },
  sayPhoto: {
    endpoint: to(addSentSaidPhoto),
    whole: to(addSaidPhoto),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ shown }) => `Photo with a message: ${shown?.name ?? ''}`,
    ...onJob,
  },
  report: {
    endpoint: to(reportHere),
    input: ({ input }) => input,
    says: ({ input: { text }, shown }) => `Reported: ${[shown?.name, text].filter(Boolean).join(': ')}`,
    ...onNothing,
  },
  reportPhoto: {
    endpoint: to(addSentReportPhoto),
    whole: to(addReportPhoto),
    input: ({ input }) => input,
    says: ({ shown }) => `Photo of what was reported: ${shown?.name ?? ''}`,
    ...onNothing,
  },
  partBack: {
    endpoint: to(contract.bringPartBack),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input, shown }) => `Part brought back: ${input.quantity} ${shown?.unit ?? ''} ${shown?.name ?? ''}`,
    ...onJob,
  },
  partAsk: {
    endpoint: to(contract.askForPart),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input, shown }) => `Part asked for: ${input.quantity} ${shown?.unit ?? ''} ${shown?.name ?? ''}`,
    ...onJob,
  },
  equipmentOut: {
    endpoint: to(contract.takeEquipment),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ shown }) => `Equipment taken: ${shown?.code ?? ''} ${shown?.name ?? ''}`,
    ...onJob,
  },
  equipmentBack: {
    endpoint: to(contract.bringEquipmentBack),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { note }, shown }) => [`Equipment given back: ${shown?.code ?? ''} ${shown?.name ?? ''}`, note].filter(Boolean).join(', '),
    ...onJob,
  },
  note: { endpoint: to(contract.addNote), input: ({ visitId, input }) => ({ visitId, ...input }), says: ({ input }) => `Note: ${input.text}`, ...onJob },
  hazards: { endpoint: to(contract.readHazards), input: ({ visitId, input }) => ({ visitId, ...input }), says: () => 'Hazards read', ...onJob },
  permit: {
    endpoint: to(contract.holdPermit),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { kind, number, fromAt, untilAt } }) =>
      `Permit: ${PERMIT_NAMES[kind].toLowerCase()} ${number}, ${shortTime(fromAt)} to ${shortTime(untilAt)}`,
    ...onJob,
  },
  photo: {
    endpoint: to(contract.addSentPhoto),
    whole: to(contract.addJobPhoto),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { stage } }) => (stage ? `Photo of ${PHOTO_STAGE_NAMES[stage].toLowerCase()}` : 'Photo'),
    ...onJob,
  },
  signature: {
    endpoint: to(contract.addSentSignature),
    whole: to(contract.addSignature),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { name } }) => `Signed by ${name}`,
    ...onJob,
  },
  checkIn: { endpoint: to(contract.checkIn), input: ({ visitId }) => ({ visitId }), says: () => 'All right, working alone', ...onJob },
  finding: {
    endpoint: to(addFinding),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { text, severity, fixedNow }, shown }) =>
      [`Found: ${[shown?.name, text].filter(Boolean).join(': ')}`, FINDING_SEVERITY_NAMES[severity].toLowerCase(), fixedNow && 'fixed at once']
        .filter(Boolean)
        .join(', '),
    ...onJob,
  },
  findingPhoto: {
    endpoint: to(addSentFindingPhoto),
    whole: to(addFindingPhoto),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ shown }) => `Photo of a finding: ${shown?.name ?? ''}`,
    ...onJob,
  },
  findingBack: {
    endpoint: to(takeBackFinding),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ shown }) => `Finding taken back: ${shown?.name ?? ''}`,
    ...onJob,
  },
  reading: {
    endpoint: to(addReading),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { value }, shown }) => `Reading: ${shown?.name ?? ''} ${value} ${shown?.unit ?? ''}`,
    ...onJob,
  },
  downtime: {
    endpoint: to(sayDowntime),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { fromAt, untilAt }, shown }) =>
      `${shown?.name ?? 'It'} could not be used: ${untilAt ? `${shortTime(fromAt)} to ${shortTime(untilAt)}` : `since ${shortTime(fromAt)}`}`,
    ...onJob,
  },
  finish: {
    endpoint: to(contract.finishJob),
    input: ({ visitId, input }) => ({ visitId, ...input }),
    says: ({ input: { result, symptom, cause, fix, note } }) =>
      ['Left the job', VISIT_RESULT_NAMES[result as VisitResult].toLowerCase(), symptom, cause, fix, note].filter(Boolean).join(', '),
    ...onJob,
  },
  step: {
    endpoint: to(doStep),
    input: ({ input }) => input,
    says: ({ input, shown }) =>
      [`${input.leave ? 'Step left out' : 'Step done'}: ${shown?.name ?? ''}`, input.value && `${input.value} ${shown?.unit ?? ''}`.trim(), input.note]
        .filter(Boolean)
        .join(', '),
    ...onStep,
  },
  stepUndo: { endpoint: to(undoStep), input: ({ input }) => input, says: ({ shown }) => `Step taken back: ${shown?.name ?? ''}`, ...onStep },
  stepPhoto: {
    endpoint: to(addSentStepPhoto),
    whole: to(addStepPhoto),
    input: ({ input }) => input,
    says: ({ shown }) => `Photo of the step: ${shown?.name ?? ''}`,
    ...onStep,
  },
}
