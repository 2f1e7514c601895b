import { addStepPhoto, doStep, undoStep } from '#contract/methods'
import type { OrderStep } from '#contract/methods'
import type { InputOf } from '#contract/kit'
import type { FieldActs } from '#core/field'
import { call } from '#web/kit'

/** How what is done to a step reaches the server. */
export interface StepActs {
  do: (step: OrderStep, input: FieldActs['step']) => Promise<unknown>
  undo: (step: OrderStep, input: FieldActs['stepUndo']) => Promise<unknown>
  photo: (step: OrderStep, input: FieldActs['stepPhoto'], file: File) => Promise<unknown>
}

/** At once, as at the desk. */
export const AT_ONCE: StepActs = {
  do: (_step, input: InputOf<typeof doStep>) => call(doStep, input),
  undo: (_step, input: InputOf<typeof undoStep>) => call(undoStep, input),
  photo: (_step, input: InputOf<typeof addStepPhoto>, file) => call(addStepPhoto, input, { file }),
}
