import { addStepPhoto, doStep, undoStep } from '#contract/methods'
import type { OrderStep } from '#contract/methods'
import type { InputOf } from '#contract/kit'
import type { FieldActs } from '#core/field'
import { call } from '#web/kit'

/** What a value outside its limits means, as whoever measured it says. */
export type StepFinding = Pick<FieldActs['finding'], 'text' | 'severity' | 'fixedNow' | 'stepId'>

/** How what is done to a step reaches the server. */
export interface StepActs {
  do: (step: OrderStep, input: FieldActs['step']) => Promise<unknown>
  undo: (step: OrderStep, input: FieldActs['stepUndo']) => Promise<unknown>
  /** Where who works there records what is wrong. */
  find?: (finding: StepFinding) => void
  photo: (step: OrderStep, input: FieldActs['stepPhoto'], file: File) => Promise<unknown>
}

/** At once, as at the desk. */
export const AT_ONCE: StepActs = {
  do: (_step, input: InputOf<typeof doStep>) => call(doStep, input),
  undo: (_step, input: InputOf<typeof undoStep>) => call(undoStep, input),
  photo: (_step, input: InputOf<typeof addStepPhoto>, file) => call(addStepPhoto, input, { file }),
}
