import { ref } from 'vue'
import type { Ref } from 'vue'
import { CallProblem } from './call'
import type { Loading } from './loading'
import { useUndo } from './undo'

/** Saves a change of what a screen shows, says so, and keeps a refusal for the form that was sent. */
export function useKeeping<T>(shown: Loading<T>): {
  problem: Ref<CallProblem | null>
  keep: (change: () => Promise<T>, done: string) => Promise<boolean>
} {
  const said = useUndo()
  const problem = ref<CallProblem | null>(null)
  async function keep(change: () => Promise<T>, done: string): Promise<boolean> {
    problem.value = null
    try {
      shown.value.value = await change()
      said.say(done)
      return true
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      problem.value = error
      said.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
      return false
    }
  }
  return { problem, keep }
}
