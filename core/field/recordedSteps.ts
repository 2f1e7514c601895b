import { readStep } from '#core/methods'
import type { StepFields } from '#core/methods'
import type { RecordedAct } from './acts'

interface RecordedStep {
  id: number
  version: number
  state: string
  value: string | null
  outside: boolean
  kind: StepFields['kind']
  unit: string | null
  least: number | null
  most: number | null
  choices: string[]
  first: boolean
  note: string | null
  doneBy: string | null
  doneAt: string | null
  photoId: number | null
  waitsFor: string | null
  text: string
}

/** Steps of a job as they stand with what was recorded: what waits for one that is done does not wait any more. */
export function stepsWithActs<Step extends RecordedStep>(steps: readonly Step[], acts: readonly RecordedAct[], who: string): (Step & { fileId?: string })[] {
  let now: (Step & { fileId?: string })[] = [...steps]
  for (const act of acts) {
    if (act.name === 'step') {
      const { id, version, value, note, leave } = act.input
      const done = now.find((one) => one.id === id)
      if (!done || done.version !== version) continue
      const read = leave ? null : readStep(done, { value: value ?? null, hasPhoto: true })
      const outside = read !== null && 'outside' in read && read.outside
      now = now.map((one) => {
        if (one.id === id)
          return {
            ...one,
            state: leave ? 'left' : 'done',
            value: value ?? null,
            outside,
            note: note ?? null,
            doneBy: who,
            doneAt: act.at,
            version: version + 1,
          }
        return one.waitsFor === done.text ? { ...one, waitsFor: null } : one
      })
    }
    if (act.name === 'stepUndo')
      now = now.map((one) =>
        one.id === act.input.id && one.version === act.input.version
          ? { ...one, state: 'open', value: null, outside: false, note: null, doneBy: null, doneAt: null, version: one.version + 1 }
          : one,
      )
    if (act.name === 'stepPhoto')
      now = now.map((one) => (one.id === act.input.id ? { ...one, photoId: one.photoId ?? -1, fileId: act.fileId, version: one.version + 1 } : one))
  }
  return now
}
