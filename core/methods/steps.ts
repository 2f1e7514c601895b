import type { Reason } from '#core/kit'
import type { StepFields } from './content'

/** A step is to do, done, or left out with a reason. */
export const STEP_STATES = ['open', 'done', 'left'] as const
export type StepState = (typeof STEP_STATES)[number]

/** A step of an order as the rules look at it. */
export interface StepFacts extends StepFields {
  id: number
  state: StepState
  /** The step it waits for. */
  afterId: number | null
}

/** What was sent with a step that is done. */
export interface StepSaid {
  /** Of a measured step a decimal with a point; of a choice the answer. */
  value: string | null
  hasPhoto: boolean
}

export type StepRead = { value: string | null; outside: boolean } | { reasons: Reason[] }

/**
 * What was found, held against what the step asks for. A value outside its limits is kept and marked: it is
 * what was measured.
 */
export function readStep(step: StepFields, { value, hasPhoto }: StepSaid): StepRead {
  const said = value?.trim() ?? ''
  switch (step.kind) {
    case 'plain':
      return { value: null, outside: false }
    case 'photo':
      return hasPhoto ? { value: null, outside: false } : wrong('photo_missing', 'A photo is wanted with this step: take one first.', 'photo')
    case 'choice':
      return step.choices.includes(said) ? { value: said, outside: false } : wrong('answer_missing', `Choose one of ${step.choices.join(', ')}.`)
    case 'measured': {
      if (!/^-?\d{1,9}(\.\d{1,4})?$/.test(said)) return wrong('value_missing', `Write the value in ${step.unit ?? 'its unit'}.`)
      const number = Number(said)
      return { value: String(number), outside: (step.least !== null && number < step.least) || (step.most !== null && number > step.most) }
    }
  }
}

const wrong = (code: string, sentence: string, field = 'value'): StepRead => ({ reasons: [{ code, sentence, field }] })

/** Why a step cannot be done yet: it waits for another. */
export function stepWaits(step: Pick<StepFacts, 'afterId'>, all: readonly Pick<StepFacts, 'id' | 'state' | 'text'>[]): Reason[] {
  const before = all.find((one) => one.id === step.afterId)
  return before && before.state === 'open' ? [{ code: 'step_waits', sentence: `It waits for “${before.text}”. Do that first.` }] : []
}

/** Whether a step may wait for another: it is of the same order, and the chain of waiting does not come back to it. */
export function afterReasons(id: number, afterId: number | null, all: readonly Pick<StepFacts, 'id' | 'afterId'>[]): Reason[] {
  const before = new Map(all.map((one) => [one.id, one.afterId]))
  if (afterId !== null && !before.has(afterId)) return [{ code: 'step_unknown', sentence: 'Choose a step of this order.', field: 'afterId' }]
  for (let at = afterId; at !== null; at = before.get(at) ?? null)
    if (at === id) return [{ code: 'circle', sentence: 'It would wait for itself.', field: 'afterId' }]
  return []
}

/** Steps that have to be done before anybody goes and are not. */
export const openFirst = <Step extends Pick<StepFacts, 'first' | 'state'>>(steps: readonly Step[]): Step[] =>
  steps.filter((step) => step.first && step.state === 'open')

/** What a measured step says of its limits: "2 to 3 bar", "at least 2 bar"; empty where there are none. */
export function limitsSay({ unit, least, most }: Pick<StepFields, 'unit' | 'least' | 'most'>): string {
  const in_ = unit ? ` ${unit}` : ''
  if (least !== null && most !== null) return `${least} to ${most}${in_}`
  if (least !== null) return `at least ${least}${in_}`
  return most !== null ? `at most ${most}${in_}` : ''
}
