import { ref } from 'vue'
import type { Ref } from 'vue'
import { CallProblem } from './call'
import { useLoading } from './loading'
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

/** Part of a page that reads and changes one thing: read at once; after a refusal it shows again what stands. */
export function useKept<T>(read: () => Promise<T>): { shown: Loading<T>; keep: (change: () => Promise<T>, done: string) => Promise<boolean> } {
  const shown = useLoading(read)
  void shown.load()
  const keeping = useKeeping(shown)
  return {
    shown,
    keep: async (change, done) => {
      const kept = await keeping.keep(change, done)
      if (!kept) await shown.load()
      return kept
    },
  }
}
